#pragma once
// The kinds of findings, each declared here and nowhere else: by its id in the project, in JSON and on the
// command line, and by what it says in general.

#include <array>
#include <string>
#include <string_view>

#define ERDWERK_FINDING_KINDS(KIND)                                                                        \
    KIND(crossingBreaklines, "crossing-breaklines",                                                        \
         "two breaklines of a surface cross at different heights")                                         \
    KIND(samePlace, "same-place", "points stand in one place")                                             \
    KIND(nearDuplicates, "near-duplicates",                                                                \
         "points stand closer together than the least distance of the project")                            \
    KIND(sameNumber, "same-number", "points have one number")                                              \
    KIND(withoutHeight, "without-height", "points, or vertices of a line, have no height")                 \
    KIND(pointsOutside, "points-outside",                                                                  \
         "points lie outside the edge of the surface that is made from them")                              \
    KIND(nearlyTouching, "nearly-touching", "a breakline ends just short of another")                      \
    KIND(chords, "chords", "an arc of a line is drawn as short chords")                                    \
    KIND(boundaryOpen, "boundary-open", "a boundary is not closed")                                        \
    KIND(boundaryCrossesItself, "boundary-crosses-itself", "a boundary crosses itself")                    \
    KIND(fileMissing, "file-missing", "the file of a cloud, a raster or a backdrop is not there")          \
    KIND(spike, "spike", "a vertex stands far above or below all around it")                               \
    KIND(flatTriangles, "flat-triangles", "triangles lie level between points of one contour")             \
    KIND(rimNeedles, "rim-needles", "long and narrow triangles stand at the rim")                          \
    KIND(ownEdit, "own-edit", "an edit of a surface does not apply any more")                              \
    KIND(fit, "fit", "a surface is off its source by more than the tolerance")                             \
    KIND(noSurface, "no-surface", "a surface cannot be built")                                             \
    KIND(heightRule, "height-rule", "a rule gives no height")                                              \
    KIND(heightRuleLost, "height-rule-lost", "a rule names what is gone")                                  \
    KIND(heightRuleCircle, "height-rule-circle", "heights depend on themselves")                           \
    KIND(gradeLimit, "grade-limit", "a grade is beyond the limits of its line")                            \
    KIND(lineFollows, "line-follows", "a line cannot follow what it is made of")                           \
    KIND(verticalCurve, "vertical-curve", "a vertical curve has no room")                                  \
    KIND(earthwork, "earthwork", "a pad, pond or batter cannot be made")                                   \
    KIND(batterOpen, "batter-open", "a batter does not reach its target")                                  \
    KIND(earthworkLarge, "earthwork-large", "a pad or pond takes more earth or room than it should")       \
    KIND(nonTangent, "non-tangent", "elements of an alignment meet at an angle")                           \
    KIND(profileInvalid, "profile-invalid", "a design profile cannot be")                                  \
    KIND(design, "design", "a design breaks its criteria")                                                 \
    KIND(tiedOff, "tied-off", "a point that is tied to an alignment has no station on it any more")        \
    KIND(parcelOpen, "parcel-open", "a parcel does not close")                                             \
    KIND(passageBehind, "passage-behind", "a passage that was written by hand says what is no longer so")  \
    KIND(descriptionOpen, "description-open", "the courses of a description do not close")                 \
    KIND(descriptionDiffers, "description-differs", "a description that was read differs from the parcel") \
    KIND(calledCoursesOpen, "called-courses-open", "the courses that a text calls do not close")           \
    KIND(notRead, "not-read", "a call of a text could not be read")                                        \
    KIND(nothingRead, "nothing-read", "no courses were found in a text")                                   \
    KIND(wordingNotValid, "wording-not-valid", "a sentence of a wording is not valid")                     \
    KIND(silentLabel, "silent-label", "a label has nothing to say")                                        \
    KIND(lostDimension, "lost-dimension", "what a dimension measured is gone")                             \
    KIND(frameOffPaper, "frame-off-paper", "a frame reaches off its sheet")

namespace erdwerk::check {

struct FindingKind {
    std::string_view id;
    std::string_view meaning;
    // NOLINTNEXTLINE(google-explicit-constructor): a finding keeps the id.
    operator std::string() const { return std::string(id); }
    friend bool operator==(const std::string& kind, const FindingKind& other) { return kind == other.id; }
};

namespace kinds {

#define ERDWERK_KIND(name, id, meaning) inline constexpr FindingKind name{id, meaning};
ERDWERK_FINDING_KINDS(ERDWERK_KIND)
#undef ERDWERK_KIND

#define ERDWERK_KIND(name, id, meaning) name,
inline constexpr std::array all{ERDWERK_FINDING_KINDS(ERDWERK_KIND)};
#undef ERDWERK_KIND

}  // namespace kinds

}  // namespace erdwerk::check
