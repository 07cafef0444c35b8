#pragma once
// The list of kinds on the screens.

#include "app/base/snapshot.h"
#include "app/kinds/object_kind.h"
#include "core/objects/table.h"

namespace erdwerk::app {

/// A kind of object that has no line below does not compile.
template <class T>
const ObjectKind& kindOf() = delete;

template <>
const ObjectKind& kindOf<objects::Points>();
template <>
const ObjectKind& kindOf<objects::Line>();
template <>
const ObjectKind& kindOf<objects::Surface>();
template <>
const ObjectKind& kindOf<objects::Alignment>();
template <>
const ObjectKind& kindOf<objects::Profile>();
template <>
const ObjectKind& kindOf<objects::Parcel>();
template <>
const ObjectKind& kindOf<objects::LabelStyle>();
template <>
const ObjectKind& kindOf<objects::Label>();
template <>
const ObjectKind& kindOf<objects::Sheet>();
template <>
const ObjectKind& kindOf<objects::Group>();
template <>
const ObjectKind& kindOf<objects::Cloud>();
template <>
const ObjectKind& kindOf<objects::HeightRaster>();
template <>
const ObjectKind& kindOf<objects::Backdrop>();
template <>
const ObjectKind& kindOf<objects::OffsetSet>();
template <>
const ObjectKind& kindOf<objects::Earthwork>();
template <>
const ObjectKind& kindOf<objects::BatterKind>();
template <>
const ObjectKind& kindOf<objects::DesignCriteria>();
template <>
const ObjectKind& kindOf<objects::Marking>();
template <>
const ObjectKind& kindOf<objects::Section>();
template <>
const ObjectKind& kindOf<objects::Dimension>();
template <>
const ObjectKind& kindOf<objects::DimensionStyle>();
template <>
const ObjectKind& kindOf<objects::Table>();
template <>
const ObjectKind& kindOf<objects::Wording>();
template <>
const ObjectKind& kindOf<objects::Reading>();
template <>
const ObjectKind& kindOf<objects::Artwork>();

/// "Courses", "Curves" …
QString tableWord(objects::TableSort sort);

const ObjectKind& kindOf(const objects::Payload& payload);
inline const ObjectKind& kindOf(const objects::Object& object) {
    return kindOf(object.payload);
}

/// What the views are given.
PlanLayers planLayers();
SceneLayers sceneLayers();

}  // namespace erdwerk::app
