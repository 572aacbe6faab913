//! `#[derive(Ranged)]`: a type of the format is checked against the ranges its `#[schema(…)]` attributes declare. They are
//! the one place a range stands in; the JSON Schema, the `OpenAPI` document and the front end's catalogue are made from the
//! same attributes by utoipa.

use proc_macro2::{Literal, TokenStream};
use quote::quote;
use syn::{Attribute, Data, DeriveInput, Expr, ExprLit, ExprUnary, Field, Fields, Lit, UnOp, parse_macro_input};

/// Checks every field against its declared range, length and count, and what a field is made of in turn.
#[proc_macro_derive(Ranged, attributes(schema, serde))]
pub fn ranged(input: proc_macro::TokenStream) -> proc_macro::TokenStream {
    let input = parse_macro_input!(input as DeriveInput);
    made(&input).unwrap_or_else(syn::Error::into_compile_error).into()
}

fn made(input: &DeriveInput) -> syn::Result<TokenStream> {
    let name = &input.ident;
    let counts = match &input.data {
        Data::Struct(data) => most_items(&data.fields)?,
        _ => Vec::new(),
    };
    let walk = match &input.data {
        Data::Struct(data) => {
            let checks = fields(&data.fields, |field| quote!(&self.#field))?;
            quote!(#(#checks)*)
        }
        Data::Enum(data) => {
            let arms = data.variants.iter().map(|variant| {
                let ident = &variant.ident;
                let called = snake(&ident.to_string());
                Ok(match &variant.fields {
                    Fields::Unit => quote!(Self::#ident => {}),
                    // What stands alone in a variant is the variant's own value.
                    Fields::Unnamed(_) => quote!(Self::#ident(of) => {
                        crate::ranged::Ranged::ranged(of, c, #called, &crate::ranged::Range::ANY);
                    }),
                    Fields::Named(named) => {
                        let names: Vec<_> = named.named.iter().filter_map(|field| field.ident.as_ref()).collect();
                        let checks = fields(&variant.fields, |field| quote!(#field))?;
                        quote!(Self::#ident { #(#names),* } => c.within(#called, |c| { #(#checks)* }),)
                    }
                })
            });
            let arms = arms.collect::<syn::Result<Vec<_>>>()?;
            quote!(match self { #(#arms)* })
        }
        Data::Union(_) => return Err(syn::Error::new_spanned(name, "a union is no part of a document")),
    };
    Ok(quote! {
        impl crate::ranged::Ranged for #name {
            #[allow(unused_variables, reason = "a type without ranges looks at nothing")]
            fn ranged(&self, c: &mut crate::problems::Checker, field: &'static str, _: &crate::ranged::Range) {
                c.within(field, |c| #name::ranges(self, c));
            }
        }

        impl #name {
            /// How many items each of its lists may hold at most.
            #[allow(dead_code, reason = "the same for every type")]
            pub(crate) const MOST_ITEMS: &'static [(&'static str, usize)] = &[#(#counts),*];

            /// Checks what is in it against the ranges its type declares.
            #[allow(unused_variables, clippy::trivially_copy_pass_by_ref, reason = "the same for every type")]
            pub(crate) fn ranges(&self, c: &mut crate::problems::Checker) {
                #walk
            }
        }
    })
}

fn fields(of: &Fields, value: impl Fn(&syn::Ident) -> TokenStream) -> syn::Result<Vec<TokenStream>> {
    let check = |field: &Field| {
        let ident = field.ident.as_ref().ok_or_else(|| syn::Error::new_spanned(field, "a field needs a name"))?;
        let (name, value, range) = (ident.to_string(), value(ident), range(&field.attrs)?);
        Ok(quote!(crate::ranged::Ranged::ranged(#value, c, #name, &#range);))
    };
    of.iter().map(check).collect()
}

/// The names of the lists with how many items they may hold.
fn most_items(of: &Fields) -> syn::Result<Vec<TokenStream>> {
    let mut counts = Vec::new();
    for field in of {
        let Some(name) = field.ident.as_ref().map(ToString::to_string) else { continue };
        for attribute in field.attrs.iter().filter(|attribute| attribute.path().is_ident("schema")) {
            attribute.parse_nested_meta(|meta| {
                if meta.input.peek(syn::token::Paren) {
                    return meta.input.parse::<proc_macro2::TokenTree>().map(|_| ());
                }
                let value: Expr = meta.value()?.parse()?;
                if meta.path.is_ident("max_items") {
                    counts.push(quote!((#name, #value)));
                }
                Ok(())
            })?;
        }
    }
    Ok(counts)
}

/// The range that the schema attributes of a field declare.
fn range(attributes: &[Attribute]) -> syn::Result<TokenStream> {
    let mut parts = Vec::new();
    for attribute in attributes.iter().filter(|attribute| attribute.path().is_ident("schema")) {
        attribute.parse_nested_meta(|meta| {
            let key = meta.path.get_ident().map(ToString::to_string).unwrap_or_default();
            if meta.input.peek(syn::token::Paren) {
                // Extensions, such as the step of a field: nothing a value is held against.
                return meta.input.parse::<proc_macro2::TokenTree>().map(|_| ());
            }
            let value: Expr = meta.value()?.parse()?;
            match key.as_str() {
                "minimum" | "maximum" => {
                    let number = Literal::f64_suffixed(number(&value)?);
                    let part = if key == "minimum" { quote!(least) } else { quote!(most) };
                    parts.push(quote!(#part: #number));
                }
                "min_length" | "min_items" | "max_length" | "max_items" => {
                    let part = if key.starts_with("min") { quote!(fewest) } else { quote!(greatest) };
                    parts.push(quote!(#part: #value));
                }
                _ => {}
            }
            Ok(())
        })?;
    }
    Ok(quote!(crate::ranged::Range { #(#parts,)* ..crate::ranged::Range::ANY }))
}

/// A number as it stands in an attribute, with its sign.
fn number(of: &Expr) -> syn::Result<f64> {
    match of {
        Expr::Unary(ExprUnary { op: UnOp::Neg(_), expr, .. }) => Ok(-number(expr)?),
        Expr::Lit(ExprLit { lit: Lit::Int(int), .. }) => int.base10_parse(),
        Expr::Lit(ExprLit { lit: Lit::Float(float), .. }) => float.base10_parse(),
        other => Err(syn::Error::new_spanned(other, "a range is written as a number")),
    }
}

/// A variant's name as the format writes it.
fn snake(name: &str) -> String {
    let mut snake = String::new();
    for (index, letter) in name.char_indices() {
        if letter.is_uppercase() && index > 0 {
            snake.push('_');
        }
        snake.extend(letter.to_lowercase());
    }
    snake
}
