#include "core/parcel/compare_calls.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace erdwerk::parcel {

namespace {

constexpr double tangentWithin = Angle::degrees(20.0 / 3600).radians();
/// Of computed figures; far below what is ever called.
constexpr double slack = 1e-9;

double turnBetween(double a, double b) {
    return std::abs(Angle::radians(a - b).signedTurn().radians());
}

/// Radius, angle, arc and chord of one curve, as far as they are called.
struct CurveFigures {
    std::array<std::optional<CalledFigure>, 4> called;  // radius, delta, arc, chord

    [[nodiscard]] std::size_t count() const {
        return static_cast<std::size_t>(
            std::count_if(called.begin(), called.end(), [](const auto& f) { return f.has_value(); }));
    }
};
constexpr std::array curveWhat{Disagreement::Radius, Disagreement::Delta, Disagreement::ArcLength,
                               Disagreement::Chord};

/// One of them from two others.
std::optional<double> solved(std::size_t wanted, const std::array<std::optional<double>, 4>& v) {
    CalledCourse two;
    two.isCurve = true;
    two.right = true;
    const auto give = [&](std::size_t i, std::optional<CalledFigure>& to) {
        if (i != wanted && v[i]) to = CalledFigure{*v[i], 0, {}};
    };
    give(0, two.radius);
    give(1, two.delta);
    give(2, two.arcLength);
    give(3, two.distance);
    two.startTangent = CalledFigure{};
    ReadDescription one;
    one.courses.push_back(two);
    const auto out = drawnCourses(one);
    if (!out.front().drawn) return std::nullopt;
    const Course& c = out.front().course;
    switch (wanted) {
        case 0:
            return c.radius;
        case 1:
            return c.delta.radians();
        case 2:
            return c.radius * c.delta.radians();
        default:
            return 2 * c.radius * std::sin(c.delta.radians() / 2);
    }
}

/// The others' value for one figure from two of them, and how far rounding may shift that.
struct Expected {
    double value = 0;
    double tolerance = 0;
};
std::optional<Expected> expectedFrom(const CurveFigures& f, std::size_t wanted, std::size_t a,
                                     std::size_t b) {
    std::array<std::optional<double>, 4> v;
    v[a] = f.called[a]->value;
    v[b] = f.called[b]->value;
    const auto middle = solved(wanted, v);
    if (!middle) return std::nullopt;
    Expected out{*middle, slack * (1 + std::abs(*middle))};
    for (const std::size_t i : {a, b}) {
        auto moved = v;
        double most = 0;
        for (const double sign : {-1.0, 1.0}) {
            moved[i] = f.called[i]->value + sign * f.called[i]->half;
            if (const auto other = solved(wanted, moved)) most = std::max(most, std::abs(*other - *middle));
        }
        out.tolerance += most;
    }
    return out;
}

bool agree(const CurveFigures& f, std::size_t wanted, std::size_t a, std::size_t b) {
    const auto expected = expectedFrom(f, wanted, a, b);
    return expected && std::abs(expected->value - f.called[wanted]->value) <=
                           expected->tolerance + f.called[wanted]->half;
}

/// Whether all called figures but one agree with each other.
bool othersAgree(const CurveFigures& f, std::size_t but) {
    std::vector<std::size_t> others;
    for (std::size_t i = 0; i < 4; ++i)
        if (i != but && f.called[i]) others.push_back(i);
    return others.size() < 3 || agree(f, others[2], others[0], others[1]);
}

void curveContradictions(const CalledCourse& c, std::size_t number, std::vector<TextDifference>& out) {
    const CurveFigures f{{c.radius, c.delta, c.arcLength, c.distance}};
    if (!c.isCurve || f.count() < 3) return;
    std::vector<std::size_t> have;
    for (std::size_t i = 0; i < 4; ++i)
        if (f.called[i]) have.push_back(i);
    bool good = true;
    for (std::size_t i = 2; i < have.size(); ++i) good = good && agree(f, have[i], have[0], have[1]);
    if (good) return;
    // The one that all others disagree with; of three, the arc, or the chord where no arc is called.
    std::size_t wrong = f.called[2] ? 2 : 3;
    if (have.size() == 4)
        for (const std::size_t i : {std::size_t{2}, std::size_t{3}, std::size_t{1}, std::size_t{0}})
            if (othersAgree(f, i)) {
                wrong = i;
                break;
            }
    std::vector<std::size_t> by;
    for (const std::size_t i : have)
        if (i != wrong) by.push_back(i);
    const auto expected = expectedFrom(f, wrong, by[0], by[1]);
    out.push_back({number,
                   curveWhat[wrong],
                   f.called[wrong]->value,
                   expected ? std::optional(expected->value) : std::nullopt,
                   {},
                   f.called[wrong]->words});
}

double directionHalf(const CalledCourse& c) {
    return (c.azimuth ? c.azimuth->half : 0) + (c.isCurve && c.delta ? c.delta->half / 2 : 0);
}

/// Tangency and side where two courses meet; a side that is called wrong is put right in `after`.
void jointContradictions(const CalledCourse& before, const DrawnCourse& from, const CalledCourse& c,
                         DrawnCourse& to, std::size_t number, std::vector<TextDifference>& out) {
    if (!from.drawn || !to.drawn || !c.tangent || (c.isCurve && !c.azimuth)) return;
    const double rounding = directionHalf(before) + directionHalf(c) + slack;
    const double turn = turnBetween(from.out.radians(), to.in.radians());
    if (*c.tangent && turn > tangentWithin + rounding) {
        // On the other side it would be tangent.
        if (c.isCurve) {
            const double half = to.course.delta.radians() / 2;
            const double other = to.course.azimuth.radians() + (to.course.right ? half : -half);
            if (turnBetween(from.out.radians(), other) <= tangentWithin + rounding) {
                out.push_back({number,
                               Disagreement::Side,
                               to.course.right ? 1.0 : 0.0,
                               to.course.right ? 0.0 : 1.0,
                               {},
                               c.sideWords});
                std::swap(to.in, to.out);
                return;
            }
        }
        out.push_back({number, Disagreement::Tangent, 1.0, 0.0, {}, c.tangentWords});
    } else if (!*c.tangent && turn <= tangentWithin) {
        out.push_back({number, Disagreement::Tangent, 0.0, 1.0, {}, c.tangentWords});
    }
}

double areaIn(double squareUnits, CalledUnit unit, const std::string& areaUnit) {
    const double metres = squareUnits * metresPer(unit) * metresPer(unit);
    double per = squareMetresPer(areaUnit);
    if (unit == CalledUnit::SurveyFoot && (areaUnit == "ft2" || areaUnit == "acre"))
        per *= std::pow(metresPer(CalledUnit::SurveyFoot) / metresPer(CalledUnit::Foot), 2);
    return metres / per;
}

void areaDifferences(const ReadDescription& read, double area, double rounding,
                     std::vector<TextDifference>& out) {
    for (const auto& called : read.areas) {
        const double computed = areaIn(area, read.unit, called.unit);
        const double tolerance = called.figure.half * (1 + slack) + areaIn(rounding, read.unit, called.unit);
        if (std::abs(computed - called.figure.value) > tolerance)
            out.push_back(
                {0, Disagreement::Area, called.figure.value, computed, called.unit, called.figure.words});
    }
}

double extentOf(const CalledShape& shape) {
    geometry::Box box;
    for (const auto& c : shape.geometry.courses) {
        box.add(c.start);
        box.add(c.end);
    }
    return std::hypot(box.width(), box.height());
}

/// A course of the parcel in the direction of the text, and its number there.
struct Side {
    Course course;
    std::size_t number = 0;  ///< from 0
};

std::vector<Side> sidesOf(const ParcelGeometry& parcel, bool backwards) {
    std::vector<Side> out;
    const std::size_t n = parcel.courses.size();
    for (std::size_t i = 0; i < n; ++i) {
        const std::size_t k = backwards ? n - 1 - i : i;
        Side side{parcel.courses[k], k};
        if (backwards) {
            Course& c = side.course;
            std::swap(c.start, c.end);
            c.azimuth = (c.azimuth + Angle::radians(std::numbers::pi)).normalized();
            c.right = !c.right;
            // Tangent at its other end: where the next one leaves.
            const Course& after = parcel.courses[(k + 1) % n];
            const auto half = [](const Course& of) {
                return Angle::radians(of.isCurve ? (of.right ? 1 : -1) * of.delta.radians() / 2 : 0.0);
            };
            const Course& here = parcel.courses[k];
            const Angle out1 = here.azimuth + half(here);
            const Angle in2 = after.azimuth - half(after);
            c.tangent = c.isCurve && turnBetween(out1.radians(), in2.radians()) <= tangentWithin;
        }
        out.push_back(side);
    }
    return out;
}

class Pair {
public:
    Pair(const CalledCourse& called, const DrawnCourse& drawn, const Course& course)
        : called_(called), drawn_(drawn), course_(course) {}

    [[nodiscard]] std::vector<TextDifference> differences(std::size_t number) const {
        std::vector<TextDifference> out;
        const auto say = [&](Disagreement what, double called, double computed, TextRange words) {
            out.push_back({number, what, called, computed, {}, words});
        };
        const auto length = [&](const std::optional<CalledFigure>& f, double computed, Disagreement what) {
            if (f && std::abs(f->value - computed) > f->half + slack * (1 + computed))
                say(what, f->value, computed, f->words);
        };
        if (const auto& a = called_.azimuth;
            a && turnBetween(a->value, course_.azimuth.radians()) > a->half + slack)
            say(Disagreement::Bearing, a->value, course_.azimuth.normalized().radians(), a->words);
        length(called_.distance, course_.distance,
               called_.isCurve ? Disagreement::Chord : Disagreement::Distance);
        if (!called_.isCurve) return out;
        length(called_.radius, course_.radius, Disagreement::Radius);
        length(called_.delta, course_.delta.radians(), Disagreement::Delta);
        length(called_.arcLength, course_.arcLength, Disagreement::ArcLength);
        const auto right = called_.right  ? called_.right
                           : drawn_.drawn ? std::optional(drawn_.course.right)
                                          : std::nullopt;
        if (right && *right != course_.right)
            say(Disagreement::Side, *right ? 1 : 0, course_.right ? 1 : 0, called_.sideWords);
        if (called_.tangent && *called_.tangent != course_.tangent)
            say(Disagreement::Tangent, *called_.tangent ? 1 : 0, course_.tangent ? 1 : 0,
                called_.tangentWords);
        return out;
    }

private:
    const CalledCourse& called_;
    const DrawnCourse& drawn_;
    const Course& course_;
};

constexpr double gapCost = 1.5;
constexpr double otherKind = 10;

/// Which course of the text stands for which side, in order; nothing: extra.
struct Alignment {
    double cost = 0;
    std::vector<std::optional<std::size_t>> sideOf;  ///< of each course, index into the turned sides
};

/// Least cost to turn the sides from `first` on into the courses: the edit distance.
Alignment aligned(const std::vector<std::vector<double>>& cost, std::size_t first, std::size_t sides) {
    const std::size_t courses = cost.size();
    std::vector<std::vector<double>> best(courses + 1, std::vector<double>(sides + 1));
    for (std::size_t i = 0; i <= courses; ++i)
        for (std::size_t k = 0; k <= sides; ++k) {
            if (i == 0 && k == 0) continue;
            double least = 1e300;
            if (i > 0) least = std::min(least, best[i - 1][k] + gapCost);
            if (k > 0) least = std::min(least, best[i][k - 1] + gapCost);
            if (i > 0 && k > 0)
                least = std::min(least, best[i - 1][k - 1] + cost[i - 1][(first + k - 1) % sides]);
            best[i][k] = least;
        }
    Alignment out{best[courses][sides], std::vector<std::optional<std::size_t>>(courses)};
    for (std::size_t i = courses, k = sides; i > 0;) {
        if (k > 0 && best[i][k] == best[i - 1][k - 1] + cost[i - 1][(first + k - 1) % sides]) {
            out.sideOf[--i] = (first + --k) % sides;
        } else if (k > 0 && best[i][k] == best[i][k - 1] + gapCost) {
            --k;
        } else {
            --i;
        }
    }
    return out;
}

struct Found {
    Alignment alignment;
    std::vector<Side> sides;
    std::size_t first = 0;
};

std::vector<std::vector<double>> costs(const ReadDescription& read, const std::vector<DrawnCourse>& drawn,
                                       const std::vector<Side>& sides) {
    std::vector<std::vector<double>> out(read.courses.size(), std::vector<double>(sides.size()));
    for (std::size_t i = 0; i < out.size(); ++i)
        for (std::size_t k = 0; k < sides.size(); ++k) {
            const bool same = read.courses[i].isCurve == sides[k].course.isCurve;
            out[i][k] = same ? static_cast<double>(
                                   Pair(read.courses[i], drawn[i], sides[k].course).differences(i).size())
                             : otherKind;
        }
    return out;
}

/// Beginnings worth a try: with many sides only those at which one of the first courses fits.
bool worthTrying(const std::vector<std::vector<double>>& cost, std::size_t first, std::size_t sides) {
    if (sides * sides * cost.size() < 50'000'000) return true;
    for (std::size_t i = 0; i < std::min<std::size_t>(3, cost.size()); ++i)
        if (cost[i][(first + i) % sides] <= 1) return true;
    return first == 0;
}

Found bestBeginning(const ReadDescription& read, const std::vector<DrawnCourse>& drawn,
                    const ParcelGeometry& parcel) {
    Found best;
    double least = 1e300;
    for (const bool backwards : {false, true}) {
        auto sides = sidesOf(parcel, backwards);
        const auto cost = costs(read, drawn, sides);
        for (std::size_t first = 0; first < sides.size(); ++first) {
            if (!worthTrying(cost, first, sides.size())) continue;
            Alignment next = aligned(cost, first, sides.size());
            if (next.cost >= least) continue;
            least = next.cost;
            best = {std::move(next), sides, first};
        }
    }
    return best;
}

void missing(const ReadDescription& read, const Found& found, std::vector<TextDifference>& out) {
    const std::size_t n = found.sides.size();
    std::vector<bool> taken(n, false);
    for (const auto& side : found.alignment.sideOf)
        if (side) taken[*side] = true;
    for (std::size_t k = 0; k < n; ++k) {
        const std::size_t side = (found.first + k) % n;
        if (taken[side]) continue;
        // Before the first course that stands for a later side.
        std::size_t place = read.courses.empty() ? 0 : read.courses.back().words.to;
        for (std::size_t i = 0; i < read.courses.size(); ++i) {
            const auto& at = found.alignment.sideOf[i];
            if (!at || (*at + n - found.first) % n < k) continue;
            place = read.courses[i].words.from;
            break;
        }
        out.push_back({found.sides[side].number + 1, Disagreement::Missing, {}, {}, {}, {place, place}});
    }
}

}  // namespace

std::string_view disagreementName(Disagreement what) {
    constexpr std::array<std::string_view, 11> names{"missing", "extra",   "bearing",   "distance",
                                                     "radius",  "delta",   "arcLength", "chord",
                                                     "side",    "tangent", "area"};
    return names[static_cast<std::size_t>(what)];
}

std::vector<TextDifference> contradictions(const ReadDescription& read,
                                           const std::vector<DrawnCourse>& given) {
    std::vector<TextDifference> out;
    auto drawn = given;
    const std::size_t n = read.courses.size();
    for (std::size_t i = 0; i < n; ++i) {
        curveContradictions(read.courses[i], i + 1, out);
        const std::size_t before = i > 0 ? i - 1 : n - 1;
        if (n > 1)
            jointContradictions(read.courses[before], drawn[before], read.courses[i], drawn[i], i + 1, out);
    }
    const CalledShape shape = shapeOf(given);
    const bool whole = std::all_of(given.begin(), given.end(), [](const DrawnCourse& c) { return c.drawn; });
    if (whole && !given.empty() && shape.gapExplained())
        areaDifferences(read, shape.geometry.area, shape.roundingGap * extentOf(shape), out);
    return out;
}

std::vector<TextDifference> comparedWith(const ReadDescription& read, const std::vector<DrawnCourse>& drawn,
                                         const ParcelGeometry& parcel) {
    std::vector<TextDifference> out;
    const Found found = bestBeginning(read, drawn, parcel);
    for (std::size_t i = 0; i < read.courses.size(); ++i) {
        const auto side = i < found.alignment.sideOf.size() ? found.alignment.sideOf[i] : std::nullopt;
        if (!side) {
            out.push_back({i + 1, Disagreement::Extra, {}, {}, {}, read.courses[i].words});
            continue;
        }
        auto differences = Pair(read.courses[i], drawn[i], found.sides[*side].course).differences(i + 1);
        // What the parcel says is wrong needs no second word.
        if (differences.empty()) curveContradictions(read.courses[i], i + 1, differences);
        std::move(differences.begin(), differences.end(), std::back_inserter(out));
    }
    missing(read, found, out);
    areaDifferences(read, parcel.area, 0, out);
    return out;
}

}  // namespace erdwerk::parcel
