#pragma once
// What a project holds. The list below is the one list of kinds.

#include <memory>
#include <string>
#include <variant>
#include <vector>

#include "core/objects/alignment.h"
#include "core/objects/artwork.h"
#include "core/objects/backdrop.h"
#include "core/objects/cloud.h"
#include "core/objects/design_criteria.h"
#include "core/objects/dimension.h"
#include "core/objects/dimension_style.h"
#include "core/objects/earthwork.h"
#include "core/objects/group.h"
#include "core/objects/height_raster.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/line.h"
#include "core/objects/marking.h"
#include "core/objects/offset_set.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/objects/reading.h"
#include "core/objects/section.h"
#include "core/objects/sheet.h"
#include "core/objects/surface.h"
#include "core/objects/table.h"
#include "core/objects/wording.h"

namespace erdwerk::objects {

using Payload =
    std::variant<Points, Line, Surface, Alignment, Profile, Parcel, LabelStyle, Label, Sheet, Group, Cloud,
                 HeightRaster, Backdrop, OffsetSet, Earthwork, BatterKind, DesignCriteria, Marking, Section,
                 Dimension, DimensionStyle, Table, Wording, Reading, Artwork>;

struct Object {
    ObjectId id;
    std::string name;
    ObjectId group;  ///< may be none
    Payload payload;
};

/// "points", "line", "surface" …: the kind as stored in files.
std::string_view kindName(const Payload& payload);
/// What it can be to a surface; nothing when it is no source of one.
std::optional<Role> sourceRole(const Payload& payload);
/// Objects that a payload names, groups not among them; one may come twice.
std::vector<ObjectId> references(const Payload& payload);
/// A payload after an object that it names went; nothing when it goes too.
std::optional<Payload> without(const Payload& payload, ObjectId gone);
/// What becomes of a payload when the parts it names are carried along.
struct Carried {
    enum class State { Same, Changed, Gone };
    State state = State::Same;
    std::optional<Payload> payload;  ///< when it changed
};
/// `lost` gets words for what is lost of it ("point of beginning").
Carried carried(const Payload& payload, const Carry& carry, std::vector<std::string>* lost);

}  // namespace erdwerk::objects
