#pragma once
// The kinds of findings, each declared here and nowhere else: by its id in the project, in JSON and on the
// command line, and by what it says in general.

#include <array>
#include <string>
#include <string_view>

namespace erdwerk::check {

struct FindingKind {
    std::string_view id;
    std::string_view meaning;
    // NOLINTNEXTLINE(google-explicit-constructor): a finding keeps the id.
    operator std::string() const { return std::string(id); }
    friend bool operator==(const std::string& kind, const FindingKind& other) { return kind == other.id; }
};

namespace kinds {

inline constexpr FindingKind crossingBreaklines{"crossing-breaklines",
                                                "two breaklines of a surface cross at different heights"};
inline constexpr FindingKind samePlace{"same-place", "points stand in one place"};
inline constexpr FindingKind nearDuplicates{
    "near-duplicates", "points stand closer together than the least distance of the project"};
inline constexpr FindingKind sameNumber{"same-number", "points have one number"};
inline constexpr FindingKind withoutHeight{"without-height", "points, or vertices of a line, have no height"};
inline constexpr FindingKind pointsOutside{
    "points-outside", "points lie outside the edge of the surface that is made from them"};
inline constexpr FindingKind nearlyTouching{"nearly-touching", "a breakline ends just short of another"};
inline constexpr FindingKind boundaryOpen{"boundary-open", "a boundary is not closed"};
inline constexpr FindingKind boundaryCrossesItself{"boundary-crosses-itself", "a boundary crosses itself"};
inline constexpr FindingKind fileMissing{"file-missing",
                                         "the file of a cloud, a raster or a backdrop is not there"};
inline constexpr FindingKind spike{"spike", "a vertex stands far above or below all around it"};
inline constexpr FindingKind flatTriangles{"flat-triangles",
                                           "triangles lie level between points of one contour"};
inline constexpr FindingKind rimNeedles{"rim-needles", "long and narrow triangles stand at the rim"};
inline constexpr FindingKind ownEdit{"own-edit", "an edit of a surface does not apply any more"};
inline constexpr FindingKind fit{"fit", "a surface is off its source by more than the tolerance"};
inline constexpr FindingKind noSurface{"no-surface", "a surface cannot be built"};
inline constexpr FindingKind heightRule{"height-rule", "a rule gives no height"};
inline constexpr FindingKind heightRuleLost{"height-rule-lost", "a rule names what is gone"};
inline constexpr FindingKind heightRuleCircle{"height-rule-circle", "heights depend on themselves"};
inline constexpr FindingKind gradeLimit{"grade-limit", "a grade is beyond the limits of its line"};
inline constexpr FindingKind lineFollows{"line-follows", "a line cannot follow what it is made of"};
inline constexpr FindingKind verticalCurve{"vertical-curve", "a vertical curve has no room"};
inline constexpr FindingKind earthwork{"earthwork", "a pad, pond or batter cannot be made"};
inline constexpr FindingKind batterOpen{"batter-open", "a batter does not reach its target"};
inline constexpr FindingKind nonTangent{"non-tangent", "elements of an alignment meet at an angle"};
inline constexpr FindingKind profileInvalid{"profile-invalid", "a design profile cannot be"};
inline constexpr FindingKind design{"design", "a design breaks its criteria"};
inline constexpr FindingKind tiedOff{"tied-off",
                                     "a point that is tied to an alignment has no station on it any more"};
inline constexpr FindingKind parcelOpen{"parcel-open", "a parcel does not close"};
inline constexpr FindingKind passageBehind{"passage-behind",
                                           "a passage that was written by hand says what is no longer so"};
inline constexpr FindingKind descriptionOpen{"description-open", "the courses of a description do not close"};
inline constexpr FindingKind descriptionDiffers{"description-differs",
                                                "a description that was read differs from the parcel"};
inline constexpr FindingKind calledCoursesOpen{"called-courses-open",
                                               "the courses that a text calls do not close"};
inline constexpr FindingKind notRead{"not-read", "a call of a text could not be read"};
inline constexpr FindingKind nothingRead{"nothing-read", "no courses were found in a text"};
inline constexpr FindingKind wordingNotValid{"wording-not-valid", "a sentence of a wording is not valid"};
inline constexpr FindingKind silentLabel{"silent-label", "a label has nothing to say"};
inline constexpr FindingKind lostDimension{"lost-dimension", "what a dimension measured is gone"};
inline constexpr FindingKind frameOffPaper{"frame-off-paper", "a frame reaches off its sheet"};

inline constexpr std::array all{crossingBreaklines,
                                samePlace,
                                nearDuplicates,
                                sameNumber,
                                withoutHeight,
                                pointsOutside,
                                nearlyTouching,
                                boundaryOpen,
                                boundaryCrossesItself,
                                fileMissing,
                                spike,
                                flatTriangles,
                                rimNeedles,
                                ownEdit,
                                fit,
                                noSurface,
                                heightRule,
                                heightRuleLost,
                                heightRuleCircle,
                                gradeLimit,
                                lineFollows,
                                verticalCurve,
                                earthwork,
                                batterOpen,
                                nonTangent,
                                profileInvalid,
                                design,
                                tiedOff,
                                parcelOpen,
                                passageBehind,
                                descriptionOpen,
                                descriptionDiffers,
                                calledCoursesOpen,
                                notRead,
                                nothingRead,
                                wordingNotValid,
                                silentLabel,
                                lostDimension,
                                frameOffPaper};

}  // namespace kinds

}  // namespace erdwerk::check
