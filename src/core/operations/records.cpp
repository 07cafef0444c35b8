#include "core/operations/records.h"

#include "core/operations/free_name.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <sstream>

#include "core/base/notation.h"
#include "core/derive/route_result.h"
#include "core/derive/surface_result.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/profile.h"
#include "core/route/design_edit.h"

namespace erdwerk::operations {

using document::freshName;

namespace {

using DesignEdit = std::function<Result<void>(std::vector<route::Pvi>&)>;

/// What a station that is read on the alignment of a profile is without its equations.
Result<double> runningStation(const Document& d, ObjectId profile, double station) {
    const auto* p = d.get<objects::Profile>(profile);
    const auto* a = p == nullptr ? nullptr : d.get<objects::Alignment>(p->alignment);
    if (a == nullptr || a->equations.empty()) return station;
    const auto numbering = route::Stationing::withEquations(a->startStation, a->equations);
    const auto distance = numbering ? numbering->distanceAt(station, 1e7) : std::nullopt;
    if (!distance) return badInput("the numbering of the alignment leaves that station out");
    return a->startStation + *distance;
}

/// Curves that go by their K get the length that the grades beside them ask for; the ends have none.
void keepK(std::vector<route::Pvi>& design) {
    for (std::size_t i = 0; i < design.size(); ++i) {
        if (i == 0 || i + 1 == design.size()) design[i].curveLength = design[i].byK = 0;
        if (i + 1 == design.size()) {
            design[i].locked = false;
            design[i].onGround.reset();
        }
        if (design[i].byK > 0)
            design[i].curveLength = route::curveLengthByK(design, i, design[i].byK).value_or(0);
    }
}

/// An edit of a profile's design, which must be valid after it.
Edit ofDesign(ObjectId profile, DesignEdit edit) {
    return [profile, edit = std::move(edit)](const Document& document) -> Result<Edited> {
        const auto* p = document.get<objects::Profile>(profile);
        if (p == nullptr) return badInput("the profile is gone");
        auto design = p->design;
        if (auto done = edit(design); !done) return tl::unexpected(done.error());
        keepK(design);
        if (auto valid = route::validate(design); !valid && !design.empty())
            return tl::unexpected(valid.error());
        return document::changed<objects::Profile>(
            document, profile, [&](objects::Profile& x) { x.design = std::move(design); });
    };
}

Result<double> typedPviHeight(const std::vector<route::Pvi>& design, std::size_t i, bool gradeIn,
                              const std::string& text) {
    const auto entry = parseHeightEntry(text);
    if (!entry) return tl::unexpected(entry.error());
    if (i == 0 && !std::holds_alternative<TypedHeight>(*entry))
        return badInput("the first PVI has none before it to rise from");
    if (i == 0 && gradeIn) return badInput("the first PVI has no grade in");
    const double before = i > 0 ? design[i - 1].height : design[i].height;
    const double run = i > 0 ? design[i].station - design[i - 1].station : 0;
    if (const auto* height = std::get_if<TypedHeight>(&*entry))
        return gradeIn ? before + height->height / 100 * run : height->height;
    if (const auto* rise = std::get_if<TypedRise>(&*entry))
        return gradeIn ? before + rise->rise / 100 * run : before + rise->rise;
    if (const auto* grade = std::get_if<TypedGrade>(&*entry))
        return before + grade->grade.riseOverRun() * run;
    return badInput("a PVI takes a height, a rise, a grade or a ratio");
}

}  // namespace

Edit makeAlignment(ObjectId line) {
    return [line](const Document& d) -> Result<Edited> {
        if (d.get<objects::Line>(line) == nullptr) return badInput("pick a line");
        return d.added(freshName<objects::Alignment>(d, d.nameOf(line)),
                       objects::Alignment{line, false, 0, 20});
    };
}

Edit reverseAlignment(ObjectId alignment) {
    return [alignment](const Document& d) -> Result<Edited> {
        if (d.get<objects::Alignment>(alignment) == nullptr) return badInput("the alignment is gone");
        return document::changed<objects::Alignment>(d, alignment,
                                                     [](objects::Alignment& a) { a.reversed = !a.reversed; });
    };
}

Edit makeParcel(ObjectId line) {
    return [line](const Document& d) -> Result<Edited> {
        const auto* on = d.get<objects::Line>(line);
        if (on == nullptr) return badInput("pick a closed line");
        if (cornersOf(on->line).size() < 3) return badInput("a parcel needs at least three corners");
        return d.added(freshName<objects::Parcel>(d, "Parcel"), objects::Parcel{line, false, 0, {}});
    };
}

Edit parcelsFromClosedLines() {
    return [](const Document& document) -> Result<Edited> {
        std::set<ObjectId> taken;
        for (const ObjectId id : document.all<objects::Parcel>())
            taken.insert(document.get<objects::Parcel>(id)->line);
        Document out = document;
        for (const ObjectId id : document.all<objects::Line>()) {
            const auto& line = document.get<objects::Line>(id)->line;
            if (!line.closed || cornersOf(line).size() < 2 || taken.count(id) != 0) continue;
            out = out.added(freeName<objects::Parcel>(out, document.nameOf(id)),
                            objects::Parcel{id, false, 0, {}});
        }
        return out;
    };
}

Edit newProfile(ObjectId alignment, ObjectId ground) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<objects::Alignment>(alignment) == nullptr) return badInput("make an alignment first");
        objects::Profile profile{alignment, ground, {}, 5};
        // The axis says the stations; more rows are chosen where there is room for them.
        profile.rows = {route::ProfileRow::Ground, route::ProfileRow::Design};
        return d.added(freshName<objects::Profile>(d, "Profile"), std::move(profile));
    };
}

namespace {

/// What a new PVI is measured against.
struct UnderDesign {
    const route::AlignmentGeometry* alignment = nullptr;
    const derive::ProfileResult* profile = nullptr;
    [[nodiscard]] double groundAt(double station) const {
        return profile != nullptr ? route::heightAt(profile->ground, station).value_or(0) : 0.0;
    }
    [[nodiscard]] std::vector<route::Pvi> ends() const {
        const double from = alignment->startStation;
        const double to = alignment->running(alignment->length);
        return {{from, groundAt(from), 0}, {to, groundAt(to), 0}};
    }
};

Result<UnderDesign> underDesign(const Derived& seen, ObjectId profile) {
    const auto* p = seen.document.get<objects::Profile>(profile);
    const auto* a = p == nullptr ? nullptr : Derived::in(seen.alignments, p->alignment);
    if (a == nullptr) return badInput("the alignment of this profile is being worked out; press once more");
    return UnderDesign{a, Derived::in(seen.profiles, profile)};
}

double rounded(double value, double steps) {
    return std::round(value * steps) / steps;
}

}  // namespace

ObjectId surfaceUnder(const Derived& derived, ObjectId alignment) {
    const auto* a = Derived::in(derived.alignments, alignment);
    return a == nullptr ? ObjectId{} : surfaceUnder(derived, a->path);
}

ObjectId surfaceUnder(const Derived& derived, const geometry::Path& path) {
    if (path.empty()) return {};
    const double length = geometry::lengthOf(path);
    ObjectId best;
    int most = 0;
    for (const auto& [id, result] : derived.surfaces) {
        if (!result->locator) continue;
        int covered = 0;
        constexpr int places = 40;
        for (int i = 0; i <= places; ++i)
            if (result->locator->triangleAt(geometry::positionAt(path, length * i / places).place)) ++covered;
        if (covered > 0 && covered >= most) {
            most = covered;
            best = id;
        }
    }
    return best;
}

std::vector<ObjectId> parcelsIn(const Derived& derived, const geometry::Box& box) {
    std::vector<ObjectId> out;
    for (const ObjectId id : derived.document.all<objects::Parcel>()) {
        const auto* line = Derived::in(derived.lines, derived.document.get<objects::Parcel>(id)->line);
        if (line != nullptr && geometry::boundsOf(line->path).meets(box)) out.push_back(id);
    }
    return out;
}

Edit addPviAt(const Results& seen, ObjectId profile, double station, double height) {
    return ofDesign(profile, [=](std::vector<route::Pvi>& design) -> Result<void> {
        const auto under = underDesign(*seen, profile);
        if (!under) return tl::unexpected(under.error());
        if (design.size() < 2) design = under->ends();
        const double s = rounded(station, 100);
        if (s < under->alignment->startStation || s > under->alignment->running(under->alignment->length))
            return badInput("the alignment does not reach there");
        const auto after =
            std::find_if(design.begin(), design.end(), [s](const auto& p) { return p.station >= s; });
        if (after != design.end() && after->station == s) return badInput("there is a PVI at this station");
        route::Pvi fresh{s, rounded(height, 1000)};
        if (after != design.begin() && after != design.end()) {
            fresh.onGround = (after - 1)->onGround;
            (after - 1)->locked = false;
        }
        design.insert(after, fresh);
        return {};
    });
}

Edit addPvi(const Results& seen, ObjectId profile) {
    return ofDesign(profile, [seen, profile](std::vector<route::Pvi>& design) -> Result<void> {
        const auto under = underDesign(*seen, profile);
        if (!under) return tl::unexpected(under.error());
        if (design.size() < 2) {
            design = under->ends();
            return {};
        }
        std::size_t at = 0;
        for (std::size_t i = 0; i + 1 < design.size(); ++i)
            if (design[i + 1].station - design[i].station > design[at + 1].station - design[at].station)
                at = i;
        const double s = (design[at].station + design[at + 1].station) / 2;
        const auto h = route::designAt(design, s);
        design.insert(design.begin() + static_cast<std::ptrdiff_t>(at) + 1,
                      {s, h ? h->height : under->groundAt(s), 0});
        return {};
    });
}

Edit removePvi(ObjectId profile, std::size_t pvi) {
    return ofDesign(profile, [pvi](std::vector<route::Pvi>& design) -> Result<void> {
        if (pvi >= design.size()) return badInput("that PVI is gone");
        design.erase(design.begin() + static_cast<std::ptrdiff_t>(pvi));
        if (design.size() < 2) design.clear();
        return {};
    });
}

Edit movePvi(ObjectId profile, std::size_t pvi, double station, double height) {
    return ofDesign(profile, [=](std::vector<route::Pvi>& design) -> Result<void> {
        if (pvi >= design.size()) return badInput("that PVI is gone");
        const double low = pvi > 0 ? design[pvi - 1].station + 0.01 : station;
        const double high = pvi + 1 < design.size() ? design[pvi + 1].station - 0.01 : station;
        route::movePvi(design, pvi, rounded(std::clamp(station, low, std::max(low, high)), 100),
                       rounded(height, 1000));
        return {};
    });
}

Edit raisePviStretch(ObjectId profile, std::size_t pvi, double rise) {
    return ofDesign(profile, [=](std::vector<route::Pvi>& design) -> Result<void> {
        if (pvi + 1 >= design.size()) return badInput("that straight is gone");
        route::raiseStretch(design, pvi, rounded(rise, 1000));
        return {};
    });
}

Edit lockGrade(ObjectId profile, std::size_t pvi, bool locked) {
    return ofDesign(profile, [=](std::vector<route::Pvi>& design) -> Result<void> {
        if (pvi + 1 >= design.size()) return badInput("no grade goes on from there");
        if (locked && design[pvi].onGround) return badInput("that stretch follows the ground");
        design[pvi].locked = locked;
        return {};
    });
}

Edit carryGradeOn(ObjectId profile, std::size_t pvi) {
    return ofDesign(profile, [=](std::vector<route::Pvi>& design) -> Result<void> {
        if (pvi >= design.size()) return badInput("that PVI is gone");
        return route::carryGradeOn(design, pvi);
    });
}

namespace {

/// A figure after "=Ground" or "=": how far above the ground.
std::optional<Result<double>> typedOnGround(const std::string& text) {
    const std::string word(trimmed(text));
    if (word.empty() || word.front() != '=') return std::nullopt;
    const auto sign = word.find_first_of("+-", 1);
    if (sign == std::string::npos) return Result<double>(0.0);
    const auto amount = parseNumber(std::string_view(word).substr(sign));
    if (!amount) return Result<double>(badInput("'" + text + "' is no amount over the ground: =+0.10"));
    return Result<double>(*amount);
}

/// Grade in: "2%", "2% locked", "locked", "free", "=+0.10".
Result<void> typeGradeIn(std::vector<route::Pvi>& design, std::size_t pvi, const std::string& text) {
    if (pvi == 0) return badInput("the first PVI has no grade in");
    route::Pvi& before = design[pvi - 1];
    std::string word(trimmed(text));
    if (const auto onGround = typedOnGround(word)) {
        if (!*onGround) return tl::unexpected(onGround->error());
        before.onGround = **onGround;
        before.locked = false;
        design[pvi].curveLength = design[pvi].byK = before.curveLength = before.byK = 0;
        return {};
    }
    const auto ends = [&](std::string_view with) {
        if (word.size() < with.size() || word.substr(word.size() - with.size()) != with) return false;
        word = std::string(trimmed(word.substr(0, word.size() - with.size())));
        return true;
    };
    const bool lock = ends("locked");
    const bool free = !lock && ends("free");
    if (free) before.locked = false;
    if (!word.empty()) {
        const auto height = typedPviHeight(design, pvi, true, word);
        if (!height) return tl::unexpected(height.error());
        const double run = design[pvi].station - before.station;
        const auto figs = route::figures(design);
        before.onGround.reset();
        if (design[pvi].locked && pvi + 1 < design.size()) {
            const auto in = Grade::riseOverRun((*height - before.height) / run);
            if (auto met = route::tangentsMeet(design, pvi, in, *figs[pvi].gradeOut); !met) return met;
        } else {
            design[pvi].height = *height;
        }
    }
    if (lock) {
        if (before.onGround) return badInput("that stretch follows the ground");
        before.locked = true;
    }
    return {};
}

}  // namespace

namespace {

/// "through 0+120 345.2": the length of the curve that runs through a place.
Result<void> curveThrough(const Document& document, ObjectId profile, std::vector<route::Pvi>& design,
                          std::size_t pvi, const std::string& text) {
    std::istringstream words(text);
    std::string through;
    std::string at;
    std::string high;
    words >> through >> at >> high;
    const auto station = parseStation(at, document.settings().display);
    const auto height = parseNumber(high);
    if (!station || !height) return badInput("write the place as: through 0+120 345.2");
    const auto running = runningStation(document, profile, *station);
    if (!running) return tl::unexpected(running.error());
    const auto length = route::curveLengthThrough(design, pvi, *running, *height);
    if (!length) return badInput("no curve at this PVI runs through that place");
    if (std::abs(*running - design[pvi].station) > *length / 2 + 1e-9)
        return badInput("the curve through that place would end before it");
    design[pvi].curveLength = *length;
    design[pvi].byK = 0;
    return {};
}

}  // namespace

Edit typePvi(ObjectId profile, std::size_t pvi, PviFigure figure, const std::string& text) {
    return [=](const Document& document) -> Result<Edited> {
        const auto edit = [&](std::vector<route::Pvi>& design) -> Result<void> {
            if (pvi >= design.size()) return badInput("that PVI is gone");
            if (figure == PviFigure::Station) {
                const auto station = parseStation(text, document.settings().display);
                if (!station) return tl::unexpected(station.error());
                const auto running = runningStation(document, profile, *station);
                if (!running) return tl::unexpected(running.error());
                if (pvi > 0 && design[pvi - 1].locked && design[pvi].locked && pvi + 1 < design.size())
                    return badInput("both its grades are locked; set one of them free first");
                route::movePvi(design, pvi, *running, design[pvi].height);
            } else if (figure == PviFigure::GradeIn) {
                return typeGradeIn(design, pvi, text);
            } else if (figure == PviFigure::CurveLength) {
                const auto word = trimmed(text);
                if (pvi == 0 || pvi + 1 == design.size())
                    return badInput("the ends of a design have no curve");
                if (word.rfind("through", 0) == 0) return curveThrough(document, profile, design, pvi, text);
                const bool byK = !word.empty() && (word.front() == 'K' || word.front() == 'k');
                const auto value = parseNumber(byK ? trimmed(word.substr(1)) : word);
                if (!value || *value < 0)
                    return badInput("'" + text +
                                    "' is no curve: write its length, K12, or through 0+120 345.2");
                design[pvi].curveLength = byK ? 0 : *value;
                design[pvi].byK = byK ? *value : 0;
            } else {
                const auto height = typedPviHeight(design, pvi, false, text);
                if (!height) return tl::unexpected(height.error());
                route::raisePvi(design, pvi, *height - design[pvi].height);
            }
            return {};
        };
        return ofDesign(profile, edit)(document);
    };
}

}  // namespace erdwerk::operations
