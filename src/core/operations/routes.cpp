#include "core/operations/routes.h"

#include <sstream>

#include "core/base/notation.h"
#include "core/objects/alignment.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/operations/records.h"
#include "core/operations/show.h"
#include "core/operations/with.h"
#include "core/route/chain.h"
#include "core/route/tangency.h"

namespace erdwerk::operations {

using document::freshName;
using geometry::Vec2;

namespace {

/// By PIs where they give the path, else by its elements.
void setPath(Alignment& alignment, geometry::Path path) {
    alignment.line = {};
    alignment.reversed = false;
    alignment.elements.clear();
    alignment.pis.clear();
    if (auto pis = route::pisOf(path))
        alignment.pis = std::move(*pis);
    else
        alignment.elements = std::move(path);
}

Result<void> validate(const Alignment& alignment) {
    if (!alignment.pis.empty())
        if (const auto path = route::pathOf(alignment.pis); !path) return tl::unexpected(path.error());
    if (const auto numbering = route::Stationing::withEquations(alignment.startStation, alignment.equations);
        !numbering)
        return tl::unexpected(numbering.error());
    return {};
}

using PiEdit = std::function<Result<void>(std::vector<route::Pi>&)>;

Edit ofPis(ObjectId alignment, PiEdit edit) {
    return [alignment, edit = std::move(edit)](const Document& d) -> Result<Edited> {
        const auto* a = d.get<Alignment>(alignment);
        if (a == nullptr) return badInput("the alignment is gone");
        if (a->line)
            return badInput("it follows the line '" + d.nameOf(a->line) +
                            "': change that, or give the alignment elements of its own");
        if (a->pis.empty()) return badInput("its joints are not tangent, so it has no PIs to change");
        auto pis = a->pis;
        if (auto done = edit(pis); !done) return tl::unexpected(done.error());
        if (const auto path = route::pathOf(pis); !path) return tl::unexpected(path.error());
        return document::changed<Alignment>(d, alignment, [&](Alignment& x) { x.pis = std::move(pis); });
    };
}

const tl::unexpected<Error> gone = badInput("that PI is gone");

}  // namespace

Edit addAlignment(const std::string& name, Alignment made) {
    return [name, made = std::move(made)](const Document& d) -> Result<Edited> {
        if (auto valid = validate(made); !valid) return tl::unexpected(valid.error());
        std::string stem = made.serves.empty() ? "alignment" : made.serves;
        stem.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(stem.front())));
        return d.added(name.empty() ? freshName<Alignment>(d, stem) : name, made);
    };
}

std::string gapsText(const std::vector<route::ClosedJoint>& closed, const DisplaySettings& display) {
    constexpr std::size_t most = 3;
    std::string out;
    for (std::size_t k = 0; k < std::min(closed.size(), most); ++k) {
        const auto& joint = closed[k];
        out += (k == 0 ? "" : "; ") + formatLength(joint.gap, display) + " at " +
               formatPosition(joint.place.x, joint.place.y, display) + ", ";
        switch (joint.by) {
            case route::ClosedJoint::By::Lengthened:
                out += "lengthened to meet";
                break;
            case route::ClosedJoint::By::Turned:
                out += "a straight turned by " +
                       formatAngle(Angle::radians(std::abs(joint.turn.radians())), display.angleUnit);
                break;
            case route::ClosedJoint::By::Shifted:
                out += "the curve behind it shifted";
        }
    }
    if (closed.size() > most) out += "; and " + std::to_string(closed.size() - most) + " more";
    return out.empty() ? out : (closed.size() == 1 ? "Gap closed: " : "Gaps closed: ") + out;
}

Result<route::Chained> chainOf(const Derived& seen, const std::vector<ObjectId>& lines,
                               const FromLines& options) {
    std::vector<route::ChainPiece> pieces;
    for (const ObjectId id : lines) {
        const auto* line = Derived::in(seen.lines, id);
        if (line == nullptr || line->path.empty()) return badInput("a line that was picked is gone");
        pieces.push_back({seen.document.nameOf(id), line->path});
    }
    auto chain = route::chained(pieces, options.gap);
    if (!chain) return tl::unexpected(chain.error());
    if (options.turned) chain->path = geometry::reversed(chain->path);
    return chain;
}

namespace {

/// Into a group that is off.
Result<Edited> putAway(const Document& d, const std::vector<ObjectId>& lines) {
    ObjectId group = d.byName<objects::Group>("Sources");
    Document out = group ? d : d.added("Sources", objects::Group{"#6B7780"}, &group);
    for (const ObjectId line : lines) out = withGroup(out, line, group);
    return setShown({group}, false)(out);
}

}  // namespace

Edit alignmentFromLines(const Results& seen, const std::vector<ObjectId>& lines, FromLines options) {
    return [=](const Document& d) -> Result<Edited> {
        auto chain = chainOf(*seen, lines, options);
        if (!chain) return tl::unexpected(chain.error());
        Alignment made;
        setPath(made, std::move(chain->path));
        Document with = d.added(freshName<Alignment>(d, d.nameOf(lines.front())), std::move(made));
        auto out = options.sources == SourceLines::Keep   ? Result<Edited>(std::move(with))
                   : options.sources == SourceLines::Hide ? setShown(lines, false)(with)
                                                          : putAway(with, lines);
        if (out) out->said = gapsText(chain->closed, d.settings().display);
        return out;
    };
}

Edit profileThrough(const Results& seen, Alignment axis) {
    return [seen, axis = std::move(axis)](const Document& d) -> Result<Edited> {
        auto added = addAlignment({}, axis)(d);
        if (!added) return added;
        ObjectId alignment;
        for (const ObjectId id : added->document.all<Alignment>())
            if (!d.find(id)) alignment = id;
        return newProfile(alignment,
                          surfaceUnder(*seen, objects::geometryOf(axis, {}).path))(added->document);
    };
}

const std::vector<route::Pi>* pisOf(const Document& document, ObjectId alignment) {
    const auto* a = document.get<Alignment>(alignment);
    return a == nullptr || a->line || a->pis.empty() ? nullptr : &a->pis;
}

Edit setPis(ObjectId alignment, std::vector<route::Pi> pis) {
    return ofPis(alignment, [pis = std::move(pis)](std::vector<route::Pi>& own) -> Result<void> {
        own = pis;
        return {};
    });
}

Edit movePi(ObjectId alignment, std::size_t pi, Vec2 place) {
    return ofPis(alignment, [=](std::vector<route::Pi>& pis) -> Result<void> {
        if (pi >= pis.size()) return gone;
        pis[pi].place = place;
        return {};
    });
}

Edit insertPi(ObjectId alignment, std::size_t after, Vec2 place) {
    return ofPis(alignment, [=](std::vector<route::Pi>& pis) -> Result<void> {
        if (after + 1 >= pis.size()) return gone;
        pis.insert(pis.begin() + static_cast<std::ptrdiff_t>(after) + 1, {place});
        return {};
    });
}

Edit insertPi(ObjectId alignment, std::size_t after) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* pis = pisOf(d, alignment);
        if (pis == nullptr || after + 1 >= pis->size()) return badInput("no PI follows this one");
        return insertPi(alignment, after,
                        geometry::lerp((*pis)[after].place, (*pis)[after + 1].place, 0.5))(d);
    };
}

Edit removePi(ObjectId alignment, std::size_t pi) {
    return ofPis(alignment, [=](std::vector<route::Pi>& pis) -> Result<void> {
        if (pi >= pis.size()) return gone;
        if (pis.size() < 3) return badInput("an alignment keeps its two ends; delete it whole instead");
        pis.erase(pis.begin() + static_cast<std::ptrdiff_t>(pi));
        // The ends have no curve.
        pis.front() = {pis.front().place};
        pis.back() = {pis.back().place};
        return {};
    });
}

namespace {

/// A length, or `A 80` for a clothoid's parameter.
Result<double> typedSpiral(const std::string& text, double radius) {
    const auto word = trimmed(text);
    if (word.empty()) return 0.0;
    const bool parameter = word.front() == 'A' || word.front() == 'a';
    const auto value = parseNumber(parameter ? trimmed(word.substr(1)) : word);
    if (!value || *value < 0) return badInput("'" + text + "' is no spiral: write its length, or A 80");
    if (!parameter) return *value;
    if (!(radius > 0)) return badInput("a spiral needs a radius");
    return *value * *value / radius;
}

Result<double> typedAway(std::string_view text, const std::string& what) {
    const auto value = trimmed(text).empty() ? std::optional(0.0) : parseNumber(trimmed(text));
    if (!value || *value < 0) return badInput("'" + std::string(text) + "' is no " + what);
    return *value;
}

/// Moves a PI and those after it.
void shift(std::vector<route::Pi>& pis, std::size_t from, Vec2 by) {
    for (std::size_t k = from; k < pis.size(); ++k) pis[k].place = pis[k].place + by;
}

Result<void> typed(std::vector<route::Pi>& pis, std::size_t i, PiFigure figure, const std::string& text,
                   const DisplaySettings& display) {
    route::Pi& pi = pis[i];
    const bool end = i == 0 || i + 1 == pis.size();
    switch (figure) {
        case PiFigure::Easting:
        case PiFigure::Northing: {
            const auto value = parseNumber(trimmed(text));
            if (!value) return badInput("'" + text + "' is no coordinate");
            (figure == PiFigure::Easting ? pi.place.x : pi.place.y) = *value;
            return {};
        }
        case PiFigure::Radius:
        case PiFigure::SpiralIn:
        case PiFigure::SpiralOut: {
            if (end) return badInput("the ends of an alignment have no curve");
            const auto value =
                figure == PiFigure::Radius ? typedAway(text, "radius") : typedSpiral(text, pi.radius);
            if (!value) return tl::unexpected(value.error());
            if (figure != PiFigure::Radius && pi.radius == 0 && *value > 0)
                return badInput("a spiral needs a radius");
            (figure == PiFigure::Radius     ? pi.radius
             : figure == PiFigure::SpiralIn ? pi.spiralIn
                                            : pi.spiralOut) = *value;
            if (pi.radius == 0) pi.spiralIn = pi.spiralOut = 0;
            return {};
        }
        case PiFigure::Bearing:
        case PiFigure::Distance:
            break;
    }
    if (i == 0) return badInput("the first PI has none before it");
    const Vec2 from = pis[i - 1].place;
    double length = geometry::distance(from, pi.place);
    Angle direction = geometry::azimuth(from, pi.place);
    if (figure == PiFigure::Distance) {
        const auto value = parseNumber(trimmed(text));
        if (!value || !(*value > 0)) return badInput("'" + text + "' is no distance");
        length = *value;
    } else {
        const auto place = parsePlaceEntry(text + " " + formatExact(length), display);
        const auto* course = place ? std::get_if<TypedCourse>(&*place) : nullptr;
        const auto plain = parseAngle(trimmed(text));
        if (course != nullptr)
            direction = course->azimuth;
        else if (plain)
            direction = *plain;
        else
            return badInput("'" + text + "' is no direction: N 45°30' E, az 45.5 or 45.5");
    }
    shift(pis, i, from + geometry::directionOf(direction) * length - pi.place);
    return {};
}

}  // namespace

Edit typePi(ObjectId alignment, std::size_t pi, PiFigure figure, const std::string& text) {
    return [=](const Document& d) -> Result<Edited> {
        return ofPis(alignment, [&](std::vector<route::Pi>& pis) -> Result<void> {
            if (pi >= pis.size()) return gone;
            return typed(pis, pi, figure, text, d.settings().display);
        })(d);
    };
}

Edit roundBareCorners(ObjectId alignment, double radius) {
    return ofPis(alignment, [=](std::vector<route::Pi>& pis) -> Result<void> {
        if (!(radius > 0)) return badInput("a radius must be above 0");
        pis = route::withRadius(std::move(pis), radius);
        return {};
    });
}

Edit typeBareRadius(ObjectId alignment, const std::string& text) {
    return [=](const Document& d) -> Result<Edited> {
        const auto radius = parseNumber(trimmed(text));
        if (!radius) return badInput("'" + text + "' is no radius");
        return roundBareCorners(alignment, *radius)(d);
    };
}

Edit ownElements(const Results& seen, ObjectId alignment) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* a = d.get<Alignment>(alignment);
        const auto* geometry = Derived::in(seen->alignments, alignment);
        if (a == nullptr || geometry == nullptr || geometry->path.empty())
            return badInput("the alignment is gone");
        if (!a->line) return badInput("its elements are its own already");
        return document::changed<Alignment>(d, alignment, [&](Alignment& x) { setPath(x, geometry->path); });
    };
}

Edit makeTangent(ObjectId alignment, std::size_t element) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* a = d.get<Alignment>(alignment);
        if (a == nullptr) return badInput("the alignment is gone");
        if (a->line || a->elements.empty())
            return badInput("it has no elements of its own that could be moved");
        // Elements are kept in their own direction.
        const std::size_t at = a->reversed ? a->elements.size() - 2 - element : element;
        auto mended = route::madeTangent(a->elements, at);
        if (!mended) return badInput("no small move of this joint makes it tangent");
        return document::changed<Alignment>(d, alignment, [&](Alignment& x) {
            const bool reversed = x.reversed;
            setPath(x, std::move(mended->path));
            x.reversed = reversed;
        });
    };
}

Edit insertCurve(ObjectId alignment, std::size_t element, double radius) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* a = d.get<Alignment>(alignment);
        if (a == nullptr) return badInput("the alignment is gone");
        if (a->line) return badInput("it follows a line: give the alignment elements of its own first");
        const bool byPis = !a->pis.empty();
        auto path = byPis ? route::pathOf(a->pis) : Result<geometry::Path>(a->elements);
        if (!path) return tl::unexpected(path.error());
        // Elements are kept in their own direction.
        const std::size_t at = a->reversed ? path->size() - 2 - element : element;
        auto rounded = route::withCurve(*path, at, radius);
        if (!rounded) return tl::unexpected(rounded.error());
        return document::changed<Alignment>(d, alignment, [&](Alignment& x) {
            const bool reversed = x.reversed;
            setPath(x, std::move(*rounded));
            x.reversed = reversed;
        });
    };
}

Edit typeCurveAt(ObjectId alignment, std::size_t element, const std::string& text) {
    return [=](const Document& d) -> Result<Edited> {
        const auto radius = parseNumber(trimmed(text));
        if (!radius) return badInput("'" + text + "' is no radius");
        return insertCurve(alignment, element, *radius)(d);
    };
}

Edit bendCurve(ObjectId alignment, std::size_t pi, Vec2 through) {
    return ofPis(alignment, [=](std::vector<route::Pi>& pis) -> Result<void> {
        if (pi == 0 || pi + 1 >= pis.size()) return gone;
        const auto radius = route::radiusThrough(pis, pi, through);
        if (!radius) return badInput("no curve at this PI comes near that place");
        pis[pi].radius = *radius;
        return {};
    });
}

Edit lineOfAlignment(const Results& seen, ObjectId alignment) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* geometry = Derived::in(seen->alignments, alignment);
        if (d.get<Alignment>(alignment) == nullptr || geometry == nullptr || geometry->path.empty())
            return badInput("the alignment is gone");
        linework::Line3D line;
        const auto corner = [&](Vec2 place, std::optional<Vec2> through) {
            linework::LineVertex v;
            v.place = place;
            v.through = through;
            line.vertices.push_back(v);
        };
        for (const auto& s : geometry->path) {
            if (!s.spiral) {
                corner(s.start, s.through);
                continue;
            }
            const auto chords = flattened(s, 0.001);
            for (std::size_t k = 0; k + 1 < chords.size(); ++k) corner(chords[k], std::nullopt);
        }
        corner(geometry->path.back().end, std::nullopt);
        if (const auto problem = linework::validate(line)) return badInput(*problem);
        return d.added(freshName<objects::Line>(d, d.nameOf(alignment)),
                       objects::Line{std::move(line), objects::LineStyle::Plain});
    };
}

Edit typeStart(ObjectId alignment, const std::string& text) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* a = d.get<Alignment>(alignment);
        if (a == nullptr) return badInput("the alignment is gone");
        const auto station = parseStation(text, d.settings().display);
        if (!station) return tl::unexpected(station.error());
        Alignment next = *a;
        next.startStation = *station;
        if (auto valid = validate(next); !valid) return tl::unexpected(valid.error());
        return document::changed<Alignment>(d, alignment, [&](Alignment& x) { x.startStation = *station; });
    };
}

Edit typeEquations(ObjectId alignment, const std::string& text) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* a = d.get<Alignment>(alignment);
        if (a == nullptr) return badInput("the alignment is gone");
        std::vector<route::StationEquation> equations;
        std::istringstream words(text);
        for (std::string word; words >> word;) {
            const auto e = route::parseEquation(word, d.settings().display);
            if (!e) return tl::unexpected(e.error());
            equations.push_back(*e);
        }
        if (auto valid = route::Stationing::withEquations(a->startStation, equations); !valid)
            return tl::unexpected(valid.error());
        return document::changed<Alignment>(d, alignment,
                                            [&](Alignment& x) { x.equations = std::move(equations); });
    };
}

std::string equationsText(const Alignment& alignment, const DisplaySettings& display) {
    std::string out;
    for (const auto& e : alignment.equations)
        out +=
            (out.empty() ? "" : " ") + formatStation(e.back, display) + "=" + formatStation(e.ahead, display);
    return out;
}

}  // namespace erdwerk::operations
