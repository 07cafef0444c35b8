// The closure report of figures whose latitudes and departures are known.

#include "core/operations/closure_report.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/operations/records.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using test::PlaneSite;
using testing::HasSubstr;

std::string reportOf(const std::string& corners, bool closed = true) {
    PlaneSite s;
    ObjectId line;
    s.document =
        s.document.added("Figure", Line{linework::lineThrough(test::places(corners), {}, closed)}, &line);
    EXPECT_TRUE(s.apply(makeParcel(line))) << s.said;
    const auto report = closureReport(*s.results(), s.last<Parcel>());
    EXPECT_TRUE(report);
    return report.value_or("");
}

TEST(ClosureReport, OfASquareHasWholeLatitudesAndSumsOfNothing) {
    const std::string report = reportOf("60 60, 90 60, 90 90, 60 90");
    EXPECT_THAT(report, HasSubstr("L1      due East      30.00    0.0000    30.0000"));
    EXPECT_THAT(report, HasSubstr("L2      due North     30.00   30.0000     0.0000"));
    EXPECT_THAT(report, HasSubstr("0.0000     0.0000      0.0000     0.0000\n\nPerimeter"));
    EXPECT_THAT(report, HasSubstr("Misclosure, exact  closes exactly"));
    EXPECT_THAT(report, HasSubstr("as called  closes exactly"));
    EXPECT_THAT(report, HasSubstr("Perimeter          120.00 m"));
    // 900 m2; a foot is 0.3048 m, an acre 4046.8564224 m2.
    EXPECT_THAT(report, HasSubstr("900.00 square metres, 0.0900 hectares"));
    EXPECT_THAT(report, HasSubstr("9687.5 square feet, 0.2224 acres"));
}

TEST(ClosureReport, AsWrittenAThirdIsRoundedAndTheMisclosureSaysSo) {
    // Legs of 10/3: written 3.33, the hypotenuse 4.714 045 as 4.71.
    const std::string report = reportOf("0 0, 3.3333333333 0, 3.3333333333 3.3333333333");
    EXPECT_THAT(report, HasSubstr("3.3333"));
    EXPECT_THAT(report, HasSubstr("3.3300"));
    EXPECT_THAT(report, testing::Not(HasSubstr("as called  closes exactly")));
}

TEST(ClosureReport, AParcelThatIsGoneIsSaid) {
    PlaneSite s;
    EXPECT_FALSE(closureReport(*s.results(), s.plot));
}

}  // namespace
}  // namespace erdwerk::operations
