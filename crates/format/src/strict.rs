//! A reader that takes an object for an object only: serde's own also takes a list for an object's fields in their order,
//! so that `{"lift": [0, -1]}` would pass for a blend.

use std::fmt;

use serde::de::{DeserializeSeed, Deserializer, EnumAccess, Error, MapAccess, SeqAccess, VariantAccess, Visitor};

/// Reads as the reader in it, but for that.
pub(crate) struct Strict<T>(pub T);

/// Reads with a reader of that kind.
struct Inside<T>(T);

/// Reads an object into what expects its fields.
struct Fields<V>(V);

macro_rules! asked {
    ($($method:ident($($name:ident: $kind:ty),*))*) => {$(
        fn $method<V: Visitor<'de>>(self, $($name: $kind,)* visitor: V) -> Result<V::Value, D::Error> {
            self.0.$method($($name,)* Inside(visitor))
        }
    )*};
}

impl<'de, D: Deserializer<'de>> Deserializer<'de> for Strict<D> {
    type Error = D::Error;

    asked! {
        deserialize_any() deserialize_bool() deserialize_i8() deserialize_i16() deserialize_i32() deserialize_i64()
        deserialize_u8() deserialize_u16() deserialize_u32() deserialize_u64() deserialize_f32() deserialize_f64()
        deserialize_char() deserialize_str() deserialize_string() deserialize_bytes() deserialize_byte_buf()
        deserialize_option() deserialize_unit() deserialize_unit_struct(name: &'static str)
        deserialize_newtype_struct(name: &'static str) deserialize_seq() deserialize_tuple(length: usize)
        deserialize_tuple_struct(name: &'static str, length: usize) deserialize_map() deserialize_identifier()
        deserialize_enum(name: &'static str, variants: &'static [&'static str]) deserialize_ignored_any()
    }

    fn deserialize_struct<V: Visitor<'de>>(
        self,
        _: &'static str,
        _: &'static [&'static str],
        visitor: V,
    ) -> Result<V::Value, D::Error> {
        self.0.deserialize_map(Inside(visitor))
    }

    fn is_human_readable(&self) -> bool {
        self.0.is_human_readable()
    }
}

macro_rules! visited {
    ($($method:ident($kind:ty))*) => {$(
        fn $method<E: Error>(self, value: $kind) -> Result<V::Value, E> {
            self.0.$method(value)
        }
    )*};
}

impl<'de, V: Visitor<'de>> Visitor<'de> for Inside<V> {
    type Value = V::Value;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        self.0.expecting(f)
    }

    visited! {
        visit_bool(bool) visit_i64(i64) visit_i128(i128) visit_u64(u64) visit_u128(u128) visit_f64(f64) visit_char(char)
        visit_str(&str) visit_borrowed_str(&'de str) visit_string(String) visit_bytes(&[u8])
        visit_borrowed_bytes(&'de [u8]) visit_byte_buf(Vec<u8>)
    }

    fn visit_none<E: Error>(self) -> Result<V::Value, E> {
        self.0.visit_none()
    }

    fn visit_unit<E: Error>(self) -> Result<V::Value, E> {
        self.0.visit_unit()
    }

    fn visit_some<D: Deserializer<'de>>(self, reader: D) -> Result<V::Value, D::Error> {
        self.0.visit_some(Strict(reader))
    }

    fn visit_newtype_struct<D: Deserializer<'de>>(self, reader: D) -> Result<V::Value, D::Error> {
        self.0.visit_newtype_struct(Strict(reader))
    }

    fn visit_seq<A: SeqAccess<'de>>(self, parts: A) -> Result<V::Value, A::Error> {
        self.0.visit_seq(Inside(parts))
    }

    fn visit_map<A: MapAccess<'de>>(self, parts: A) -> Result<V::Value, A::Error> {
        self.0.visit_map(Inside(parts))
    }

    fn visit_enum<A: EnumAccess<'de>>(self, part: A) -> Result<V::Value, A::Error> {
        self.0.visit_enum(Inside(part))
    }
}

impl<'de, S: DeserializeSeed<'de>> DeserializeSeed<'de> for Inside<S> {
    type Value = S::Value;

    fn deserialize<D: Deserializer<'de>>(self, reader: D) -> Result<S::Value, D::Error> {
        self.0.deserialize(Strict(reader))
    }
}

impl<'de, V: Visitor<'de>> DeserializeSeed<'de> for Fields<V> {
    type Value = V::Value;

    fn deserialize<D: Deserializer<'de>>(self, reader: D) -> Result<V::Value, D::Error> {
        reader.deserialize_map(Inside(self.0))
    }
}

impl<'de, A: SeqAccess<'de>> SeqAccess<'de> for Inside<A> {
    type Error = A::Error;

    fn next_element_seed<S: DeserializeSeed<'de>>(&mut self, seed: S) -> Result<Option<S::Value>, A::Error> {
        self.0.next_element_seed(Inside(seed))
    }

    fn size_hint(&self) -> Option<usize> {
        self.0.size_hint()
    }
}

impl<'de, A: MapAccess<'de>> MapAccess<'de> for Inside<A> {
    type Error = A::Error;

    fn next_key_seed<S: DeserializeSeed<'de>>(&mut self, seed: S) -> Result<Option<S::Value>, A::Error> {
        self.0.next_key_seed(Inside(seed))
    }

    fn next_value_seed<S: DeserializeSeed<'de>>(&mut self, seed: S) -> Result<S::Value, A::Error> {
        self.0.next_value_seed(Inside(seed))
    }

    fn size_hint(&self) -> Option<usize> {
        self.0.size_hint()
    }
}

impl<'de, A: EnumAccess<'de>> EnumAccess<'de> for Inside<A> {
    type Error = A::Error;
    type Variant = Inside<A::Variant>;

    fn variant_seed<S: DeserializeSeed<'de>>(self, seed: S) -> Result<(S::Value, Self::Variant), A::Error> {
        self.0.variant_seed(Inside(seed)).map(|(name, of)| (name, Inside(of)))
    }
}

impl<'de, A: VariantAccess<'de>> VariantAccess<'de> for Inside<A> {
    type Error = A::Error;

    fn unit_variant(self) -> Result<(), A::Error> {
        self.0.unit_variant()
    }

    fn newtype_variant_seed<S: DeserializeSeed<'de>>(self, seed: S) -> Result<S::Value, A::Error> {
        self.0.newtype_variant_seed(Inside(seed))
    }

    fn tuple_variant<V: Visitor<'de>>(self, length: usize, visitor: V) -> Result<V::Value, A::Error> {
        self.0.tuple_variant(length, Inside(visitor))
    }

    fn struct_variant<V: Visitor<'de>>(self, _: &'static [&'static str], visitor: V) -> Result<V::Value, A::Error> {
        self.0.newtype_variant_seed(Fields(visitor))
    }
}
