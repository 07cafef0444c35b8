#pragma once
// Cut and fill between two surfaces of a project: by region, as a map, as a report.

#include "core/derive/model.h"
#include "core/terrain/earthworks.h"

namespace erdwerk::derive {

struct VolumeRequest {
    ObjectId from;
    ObjectId to;
    ObjectId regions;  ///< a group whose closed lines are the regions; none: only the whole
};

struct VolumeResult {
    std::vector<terrain::RegionVolumes> rows;  ///< the whole first
    terrain::CutFillMap map;
};

/// BadInput when the surfaces are not there or the same.
Result<VolumeResult> volumesOf(const Derived& derived, const VolumeRequest& request,
                               const Context& context = {});

/// A page in HTML that stands alone: what was compared, on which day (as given), the table, the sums.
std::string volumeReport(const Derived& derived, const VolumeRequest& request, const VolumeResult& result,
                         const std::string& date);

}  // namespace erdwerk::derive
