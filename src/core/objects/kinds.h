#pragma once
// The one list of kinds: what a project can hold, by name. A header of one kind is included by those who look
// into it; everybody else knows it by its name here.

#include <cstddef>
#include <type_traits>

namespace erdwerk::objects {

struct Alignment;
struct Artwork;
struct Backdrop;
struct BatterKind;
struct Cloud;
struct DesignCriteria;
struct Dimension;
struct DimensionStyle;
struct Earthwork;
struct Group;
struct HeightRaster;
struct Label;
struct LabelStyle;
struct Line;
struct Marking;
struct OffsetSet;
struct Parcel;
struct Points;
struct Profile;
struct Reading;
struct Section;
struct Sheet;
struct Surface;
struct Table;
struct Wording;

template <class... T>
struct KindList {
    static constexpr std::size_t count = sizeof...(T);
    /// Position of a kind in the list; `count` when it is none.
    template <class K>
    static constexpr std::size_t indexOf() {
        std::size_t i = 0;
        static_cast<void>(((std::is_same_v<K, T> || (++i, false)) || ...));
        return i;
    }
};

/// In the order in which contents shows them.
using Kinds = KindList<Points, Line, Surface, Alignment, Profile, Parcel, LabelStyle, Label, Sheet, Group,
                       Cloud, HeightRaster, Backdrop, OffsetSet, Earthwork, BatterKind, DesignCriteria,
                       Marking, Section, Dimension, DimensionStyle, Table, Wording, Reading, Artwork>;

inline constexpr std::size_t kindCount = Kinds::count;
template <class T>
inline constexpr std::size_t kindIndex = Kinds::indexOf<T>();
template <class T>
concept IsKind = kindIndex<T> < kindCount;

}  // namespace erdwerk::objects
