#pragma once
// Batters, pads and ponds, and kinds of batter that are kept by name.

#include "core/earthwork/batter_text.h"
#include "core/earthwork/pad.h"
#include "core/objects/kind.h"

namespace erdwerk::objects {

enum class EarthworkSort { Batter, Pad, Pond };
std::string_view sortName(EarthworkSort sort);

/// A stretch of an edge, by distances along it; round a closed one when `to` lies before `from`.
struct EarthworkStretch {
    double from = 0;
    double to = 0;
    friend bool operator==(const EarthworkStretch&, const EarthworkStretch&) = default;
};

struct Earthwork {
    EarthworkSort sort = EarthworkSort::Batter;
    ObjectId edge;    ///< a line; of a pad or a pond a closed one
    ObjectId ground;  ///< a surface; none for a batter to a height, a rise or a distance
    earthwork::BatterForm form;
    bool right = false;                       ///< of a batter: of the direction of the edge
    std::optional<EarthworkStretch> stretch;  ///< of a batter: none is all of the edge
    std::vector<ObjectId> inside;             ///< of a pad: lines that shape its inside
    earthwork::Earth earth;
    friend bool operator==(const Earthwork& a, const Earthwork& b) {
        return a.sort == b.sort && a.edge == b.edge && a.ground == b.ground && a.form == b.form &&
               a.right == b.right && a.stretch == b.stretch && a.inside == b.inside &&
               a.earth.swell == b.earth.swell && a.earth.shrink == b.earth.shrink;
    }
};

template <>
struct Kind<Earthwork> : HasNoParts<Earthwork> {
    static constexpr std::string_view name = "earthwork";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Earthwork& object, const Visit& visit);
    static std::optional<Earthwork> without(Earthwork object, ObjectId gone);
};

struct BatterKind {
    earthwork::BatterForm form;
    friend bool operator==(const BatterKind&, const BatterKind&) = default;
};

template <>
struct Kind<BatterKind> : StandsAlone<BatterKind> {
    static constexpr std::string_view name = "batter-kind";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
};

}  // namespace erdwerk::objects
