#pragma once
// Lines made of lines, from what those are now.

#include <functional>
#include <memory>

#include "core/objects/line.h"
#include "core/route/profile.h"
#include "core/terrain/locator.h"

namespace erdwerk::derive {

/// A row beside a line: its heights fixed, or those of the surface. BadInput when nothing is left of it.
Result<linework::Line3D> rowBeside(const linework::ResolvedLine& source, const linework::OffsetRow& row,
                                   const linework::OffsetOptions& options, const terrain::TinLocator* ground,
                                   ObjectId surface);
/// The stretches along which the slopes from two lines meet; NotFound when they never do.
Result<std::vector<linework::Line3D>> meetingOf(const linework::ResolvedLine& first,
                                                const linework::ResolvedLine& second,
                                                const linework::MeetOptions& options);

/// A row beside the design of a profile, or the design itself (a run of 0), as route::designLine makes it.
Result<linework::Line3D> rowBesideDesign(const route::AlignmentGeometry& alignment,
                                         const std::vector<route::Pvi>& design, const objects::DesignOf& of);

/// What a line that follows other lines is now. NotFound when something that it is made of is gone.
Result<linework::Line3D> followedLine(
    const objects::Follows& follows,
    const std::function<std::shared_ptr<const linework::ResolvedLine>(ObjectId)>& line,
    const std::function<std::shared_ptr<const terrain::TinLocator>(ObjectId)>& surface);

}  // namespace erdwerk::derive
