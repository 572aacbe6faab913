//! What a page may load: nothing that is not this Tolva's own.

/// The content security policy, with what styles are let in.
pub fn policy(styles: &str) -> String {
    format!(
        "default-src 'none'; script-src 'self'; style-src {styles}; font-src 'self'; img-src 'self' data:; \
         connect-src 'self'; manifest-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
    )
}
