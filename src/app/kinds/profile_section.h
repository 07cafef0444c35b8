#pragma once
// A profile as a long-section: on the page, on sheets, in files.

#include "app/section/section_data.h"
#include "core/derive/model.h"
#include "core/route/criteria.h"
#include "core/route/profile_rows.h"

namespace erdwerk::app {

/// Nothing to draw where there is no such profile. `rowsEvery`: the distance between places of its rows.
SectionData profileSection(const derive::Derived& derived, ObjectId profile, double rowsEvery);

/// What a row is called.
QString rowText(route::ProfileRow row);
/// Where a design breaks a limit, in a few words: "crest K 9.0".
QString faultWords(const route::DesignFinding& finding, const DisplaySettings& display);

}  // namespace erdwerk::app
