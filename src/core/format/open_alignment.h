#pragma once
// An alignment from any file that holds one.

#include "core/base/quantity.h"
#include "core/route/alignment.h"
#include "core/route/chain.h"

namespace erdwerk::format {

/// What is changed of it on the way in.
struct AlignmentOptions {
    std::optional<double> start;         ///< station of its beginning
    bool reverse = false;                ///< run the other way; it begins with the same station
    std::optional<double> radius;        ///< at all bare corners
    std::vector<std::string> equations;  ///< "BACK=AHEAD"; in place of those of the file
    double gap = 0.01;                   ///< ends of loose pieces nearer than this meet
    bool withJournal = false;
};

struct OpenedAlignment {
    std::string name;
    route::AlignmentGeometry geometry;
    std::optional<LengthUnit> unit;          ///< of a file that says so
    std::vector<route::ClosedJoint> closed;  ///< gaps between loose pieces, in the order they were chained
};

/// LandXML (FILE.xml, or FILE.xml:NAME where there are several; start and equations kept),
/// PROJECT.erdwerk:NAME, a CSV of PIs, or vector files of pieces, chained. Errors name the file.
Result<OpenedAlignment> openAlignment(const std::vector<std::string>& specs,
                                      const AlignmentOptions& options = {});

}  // namespace erdwerk::format
