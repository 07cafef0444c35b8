#include "core/operations/descriptions.h"

#include <algorithm>

#include "core/base/notation.h"
#include "core/derive/passage_of.h"
#include "core/objects/line.h"
#include "core/objects/reading.h"
#include "core/objects/wording.h"
#include "core/operations/free_name.h"

namespace erdwerk::operations {

namespace {

Edit ofParcel(ObjectId parcel, std::function<Result<void>(const Document&, Parcel&)> change) {
    return [parcel, change = std::move(change)](const Document& d) -> Result<Edited> {
        const auto* old = d.get<Parcel>(parcel);
        if (old == nullptr) return badInput("the parcel is gone");
        Parcel next = *old;
        if (auto done = change(d, next); !done) return tl::unexpected(done.error());
        return d.withPayload(parcel, std::move(next));
    };
}

/// Sides of the line of a parcel in the document; 0 when it has none.
std::size_t sidesOf(const Document& d, const Parcel& parcel, bool* closed) {
    const auto* line = d.get<Line>(parcel.line);
    if (line == nullptr) return 0;
    *closed = line->line.closed;
    const std::size_t corners = cornersOf(line->line).size();
    return line->line.closed || corners == 0 ? corners : corners - 1;
}

void setName(std::vector<Parcel::Named>& names, std::size_t part, const std::string& name) {
    std::erase_if(names, [part](const auto& n) { return n.part == part; });
    if (!name.empty()) names.push_back({part, name});
    std::sort(names.begin(), names.end(), [](const auto& a, const auto& b) { return a.part < b.part; });
}

std::string figureWords(const parcel::TextDifference& d, double value) {
    switch (d.what) {
        case parcel::Disagreement::Bearing:
            return formatBearing(Angle::radians(value));
        case parcel::Disagreement::Delta:
            return formatAngle(Angle::radians(value), AngleUnit::DegreesMinutesSeconds);
        case parcel::Disagreement::Side:
            return value > 0.5 ? "right" : "left";
        case parcel::Disagreement::Tangent:
            return value > 0.5 ? "tangent" : "not tangent";
        case parcel::Disagreement::Area:
            return formatFixed(value, d.areaUnit == "ha" || d.areaUnit == "acre" ? 4 : 2) + " " + d.areaUnit;
        default:
            return formatFixed(value, 3);
    }
}

std::string whatWords(parcel::Disagreement what) {
    switch (what) {
        case parcel::Disagreement::ArcLength:
            return "arc length";
        case parcel::Disagreement::Delta:
            return "central angle";
        case parcel::Disagreement::Tangent:
            return "tangency";
        default:
            return std::string(parcel::disagreementName(what));
    }
}

}  // namespace

double closingLimit(LengthUnit unit) {
    return convertLength(0.05, LengthUnit::Metre, unit);
}

Edit nameAdjoiner(ObjectId parcel, std::size_t course, const std::string& name) {
    return ofParcel(parcel, [=](const Document& d, Parcel& p) -> Result<void> {
        bool closed = false;
        const std::size_t sides = sidesOf(d, p, &closed);
        if (course >= sides) return badInput("the parcel has no such course any more");
        setName(p.adjoiners, p.sideOf(course, sides, closed), name);
        return {};
    });
}

Edit nameThing(ObjectId parcel, std::size_t course, const std::string& name) {
    return ofParcel(parcel, [=](const Document& d, Parcel& p) -> Result<void> {
        bool closed = false;
        const std::size_t sides = sidesOf(d, p, &closed);
        if (course >= sides) return badInput("the parcel has no such course any more");
        setName(p.things, p.cornerAfter(course, sides, closed), name);
        return {};
    });
}

Edit typePassage(ObjectId parcel, const derive::ParcelPassage& passage, const std::string& text) {
    const auto of = derive::passageOf(passage.part.kind);
    const std::string generated = passage.instead.empty() ? passage.part.text : passage.instead;
    const bool note = passage.part.kind == parcel::DescriptionPart::Kind::Note;
    return ofParcel(parcel, [=, course = passage.part.course](const Document& d, Parcel& p) -> Result<void> {
        if (note) return badInput("this says what the geometry is; it cannot be changed by hand");
        bool closed = false;
        const std::size_t sides = sidesOf(d, p, &closed);
        const bool isCourse = of == objects::Passage::Of::Course;
        if (isCourse && course >= sides) return badInput("the parcel has no such course any more");
        const std::size_t side = isCourse ? p.sideOf(course, sides, closed) : 0;
        std::erase_if(p.passages, [&](const objects::Passage& old) {
            return old.of == of && (!isCourse || old.side == side);
        });
        if (!text.empty() && text != generated) p.passages.push_back({of, side, text, generated});
        return {};
    });
}

Edit addWording(parcel::DescriptionTemplate wording) {
    return [wording = std::move(wording)](const Document& d) -> Result<Edited> {
        if (auto good = parcel::validate(wording); !good) return tl::unexpected(good.error());
        const std::string name = wording.name.empty() ? "Wording" : wording.name;
        Wording made{wording};
        made.wording.name.clear();
        return d.added(freeName<Wording>(d, name), std::move(made));
    };
}

Edit ownWording(ObjectId parcel, parcel::DescriptionTemplate wording) {
    return [parcel, wording = std::move(wording)](const Document& d) -> Result<Edited> {
        if (d.get<Parcel>(parcel) == nullptr) return badInput("the parcel is gone");
        auto added = addWording(wording)(d);
        if (!added) return added;
        const ObjectId made = added->document.all<Wording>().back();
        return document::changed<Parcel>(added->document, parcel, [&](Parcel& p) { p.wording = made; });
    };
}

Edit changeSentence(ObjectId wording, std::string_view key, const std::string& sentence) {
    return [wording, key = std::string(key), sentence](const Document& d) -> Result<Edited> {
        const auto* old = d.get<Wording>(wording);
        if (old == nullptr) return badInput("the wording is gone");
        Wording next = *old;
        for (const auto& known : parcel::sentenceKeys())
            if (known.key == key) next.wording.*(known.sentence) = sentence;
        if (auto good = parcel::validate(next.wording); !good) return tl::unexpected(good.error());
        return d.withPayload(wording, std::move(next));
    };
}

Edit readBack(const Derived& derived, const std::string& name, const std::string& text, ObjectId parcel,
              geometry::Vec2 at) {
    const auto* compared = Derived::in(derived.parcels, parcel);
    if (compared != nullptr && !compared->geometry.courses.empty())
        at = compared->geometry.courses.front().start;
    return [=](const Document& d) -> Result<Edited> {
        const auto unit = parcel::calledUnitOf(d.settings().display.unit);
        const auto read = parcel::readDescription(text, unit);
        if (!read) return tl::unexpected(read.error());
        Reading reading;
        reading.text = text;
        reading.at = at;
        reading.unit = unit;
        reading.parcel = d.get<Parcel>(parcel) == nullptr ? ObjectId{} : parcel;
        return d.added(freeName<Reading>(d, name), std::move(reading));
    };
}

Edit changeReading(ObjectId reading, const std::string& text) {
    return [reading, text](const Document& d) -> Result<Edited> {
        const auto* old = d.get<Reading>(reading);
        if (old == nullptr) return badInput("the text is gone");
        Reading next = *old;
        next.text = text;
        return d.withPayload(reading, std::move(next));
    };
}

Edit placeReading(ObjectId reading, const std::string& typed) {
    return [reading, typed](const Document& d) -> Result<Edited> {
        const auto comma = typed.find(',');
        const auto e = parseNumber(typed.substr(0, comma));
        const auto n = comma == std::string::npos ? std::nullopt : parseNumber(typed.substr(comma + 1));
        if (!e || !n) return badInput("type an easting and a northing with a comma between them");
        return document::changed<Reading>(d, reading, [&](Reading& r) { r.at = {*e, *n}; });
    };
}

Edit turnReading(ObjectId reading, const std::string& typed) {
    return [reading, typed](const Document& d) -> Result<Edited> {
        const auto angle = parseAngle(typed);
        if (!angle) return badInput("'" + typed + "' is not an angle");
        return document::changed<Reading>(d, reading, [&](Reading& r) { r.north = angle->normalized(); });
    };
}

std::string courseWords(const parcel::CalledCourse& c, const parcel::DrawnCourse& drawn) {
    const auto angle = [](const std::optional<parcel::CalledFigure>& f) {
        return formatAngle(Angle::radians(f->value), AngleUnit::DegreesMinutesSeconds);
    };
    std::string out;
    if (c.isCurve) {
        out = "curve";
        const auto right = c.right ? c.right : drawn.drawn ? std::optional(drawn.course.right) : std::nullopt;
        if (right) out += *right ? " to the right" : " to the left";
        if (c.radius) out += ", radius " + formatExact(c.radius->value);
        if (c.delta) out += ", " + angle(c.delta);
        if (c.arcLength) out += ", arc " + formatExact(c.arcLength->value);
        if (c.azimuth || c.distance) out += ", chord";
    }
    if (c.azimuth) out += (out.empty() ? "" : " ") + formatBearing(Angle::radians(c.azimuth->value));
    if (c.distance) out += (out.empty() ? "" : c.azimuth ? ", " : " ") + formatExact(c.distance->value);
    return out;
}

std::optional<geometry::Vec2> middleOfCourse(const derive::ReadingResult& reading, std::size_t course) {
    if (course >= reading.drawn.size() || !reading.drawn[course].drawn) return std::nullopt;
    const auto segment =
        std::count_if(reading.drawn.begin(), reading.drawn.begin() + static_cast<std::ptrdiff_t>(course),
                      [](const auto& c) { return c.drawn; });
    return pointAt(reading.path[static_cast<std::size_t>(segment)], 0.5);
}

std::string differenceWords(const Derived& derived, ObjectId reading, const parcel::TextDifference& d) {
    const auto* of = derived.document.get<Reading>(reading);
    const std::string course = "course " + std::to_string(d.course);
    if (d.what == parcel::Disagreement::Missing) return course + " of the parcel is missing";
    if (d.what == parcel::Disagreement::Extra) return course + " is one too many";
    std::string out = d.course > 0 ? course + ", " : std::string();
    out += whatWords(d.what);
    if (d.called) out += " called " + figureWords(d, *d.called);
    if (d.computed) out += ", it is " + figureWords(d, *d.computed);
    if (of != nullptr && d.words.to > d.words.from) out += " (\"" + parcel::cutOut(of->text, d.words) + "\")";
    return out;
}

}  // namespace erdwerk::operations
