#include <algorithm>

#include "cli/operation.h"
#include "core/base/notation.h"
#include "core/format/text_file.h"
#include "core/format/vector_file.h"
#include "core/parcel/as_called.h"
#include "core/parcel/compare_calls.h"

namespace erdwerk::cli {

namespace {

using nlohmann::ordered_json;

ordered_json rangeJson(const parcel::TextRange& words) {
    return {{"from", words.from}, {"to", words.to}};
}

ordered_json number(double value, bool known = true) {
    return known ? ordered_json(value) : ordered_json(nullptr);
}

/// What is called as it is called, what is not as it follows from that.
ordered_json courseJson(const parcel::CalledCourse& called, const parcel::DrawnCourse& drawn) {
    const auto angle = [&](const std::optional<parcel::CalledFigure>& f, Angle follows) {
        return number(f ? Angle::radians(f->value).degrees() : follows.degrees(), f || drawn.drawn);
    };
    const auto length = [&](const std::optional<parcel::CalledFigure>& f, double follows) {
        return number(f ? f->value : follows, f || drawn.drawn);
    };
    const parcel::Course& c = drawn.course;
    ordered_json out;
    if (!called.isCurve) {
        out = {{"kind", "line"},
               {"azimuth", angle(called.azimuth, c.azimuth)},
               {"distance", length(called.distance, c.distance)}};
    } else {
        out = {{"kind", "curve"},
               {"radius", length(called.radius, c.radius)},
               {"delta", angle(called.delta, c.delta)},
               {"arcLength", length(called.arcLength, c.arcLength)},
               {"chordAzimuth", angle(called.azimuth, c.azimuth)},
               {"chord", length(called.distance, c.distance)}};
        const auto right = called.right ? called.right : drawn.drawn ? std::optional(c.right) : std::nullopt;
        out["side"] = right ? ordered_json(*right ? "right" : "left") : ordered_json(nullptr);
        const auto tangent = called.tangent ? called.tangent
                             : drawn.drawn  ? std::optional(c.tangent)
                                            : std::nullopt;
        out["tangent"] = tangent ? ordered_json(*tangent) : ordered_json(nullptr);
    }
    out["from"] = called.words.from;
    out["to"] = called.words.to;
    return out;
}

ordered_json differenceValue(const parcel::TextDifference& d, const std::optional<double>& value) {
    if (!value) return nullptr;
    switch (d.what) {
        case parcel::Disagreement::Bearing:
        case parcel::Disagreement::Delta:
            return Angle::radians(*value).degrees();
        case parcel::Disagreement::Side:
            return *value > 0.5 ? "right" : "left";
        case parcel::Disagreement::Tangent:
            return *value > 0.5;
        default:
            return *value;
    }
}

ordered_json differenceJson(const parcel::TextDifference& d) {
    ordered_json out;
    out["course"] = d.course > 0 ? ordered_json(d.course) : ordered_json(nullptr);
    out["what"] = parcel::disagreementName(d.what);
    out["called"] = differenceValue(d, d.called);
    out["computed"] = differenceValue(d, d.computed);
    if (!d.areaUnit.empty()) out["unit"] = d.areaUnit;
    out["from"] = d.words.from;
    out["to"] = d.words.to;
    return out;
}

/// "E,N".
Result<geometry::Vec2> placeOf(const std::string& text) {
    const auto comma = text.find(',');
    const auto e = comma == std::string::npos ? std::nullopt : parseNumber(text.substr(0, comma));
    const auto n = comma == std::string::npos ? std::nullopt : parseNumber(text.substr(comma + 1));
    if (!e || !n) return badInput("--at is E,N: an easting and a northing");
    return geometry::Vec2{*e, *n};
}

/// The parcel of a file in called units and called north.
Result<parcel::ParcelGeometry> parcelIn(const Arguments& a, double calledPerUnit) {
    const auto line = readOneLine(a.text("compare"), "a parcel");
    if (!line) return tl::unexpected(line.error());
    return parcel::asCalled(parcel::survey(planPath(line->line)), calledPerUnit,
                            Angle::degrees(a.number("azimuth-of-north")));
}

Result<void> writeFigure(const Arguments& a, const std::vector<parcel::DrawnCourse>& drawn, double factor) {
    geometry::Vec2 at;
    if (!a.text("at").empty()) {
        const auto place = placeOf(a.text("at"));
        if (!place) return tl::unexpected(place.error());
        at = *place;
    }
    const auto path = parcel::figureOf(drawn, at, Angle::degrees(a.number("azimuth-of-north")), factor);
    format::VectorLayer layer{"read_description", format::Shape::CurveZ, {{"name"}}, {}};
    format::VectorFeature feature;
    feature.flat = true;
    for (const auto& segment : path) {
        linework::LineVertex corner;
        corner.place = segment.start;
        corner.through = segment.through;
        feature.curve.vertices.push_back(corner);
        feature.places.push_back({segment.start.x, segment.start.y, 0});
    }
    linework::LineVertex last;
    last.place = path.back().end;
    feature.curve.vertices.push_back(last);
    feature.places.push_back({last.place.x, last.place.y, 0});
    feature.values = {std::string("as called")};
    layer.features.push_back(std::move(feature));
    return format::writeVectorFile(a.text("output"), {layer});
}

std::string wordsFor(const ordered_json& differences, std::size_t unread, bool gap) {
    std::string out;
    for (const auto& d : differences) {
        out += d["course"].is_null() ? std::string() : "course " + d["course"].dump() + ": ";
        out += d["what"].get<std::string>();
        if (!d["called"].is_null()) out += " called " + d["called"].dump() + ", is " + d["computed"].dump();
        out += " (characters " + d["from"].dump() + " to " + d["to"].dump() + ")\n";
    }
    if (unread > 0)
        out += std::to_string(unread) + (unread == 1 ? " place" : " places") + " could not be read\n";
    if (gap) out += "the courses leave a gap that rounding does not explain\n";
    return out;
}

Result<Outcome> readBack(const Arguments& a) {
    const auto text = format::readTextFile(a.inputs().front());
    if (!text) return tl::unexpected(text.error());
    const auto given = parcel::calledUnitFrom(a.text("unit").empty() ? "m" : a.text("unit"));
    if (!given) return badInput("--unit is m, ft, ftUS or chain");
    const auto read = parcel::readDescription(*text, *given);
    if (!read) return badInput(read.error().text, a.inputs().front(), 1);
    const auto drawn = parcel::drawnCourses(*read);
    const auto shape = parcel::shapeOf(drawn);
    const auto planUnit = a.text("unit").empty() ? read->unit : *given;
    const double factor = metresPer(read->unit) / metresPer(planUnit);

    std::vector<parcel::TextDifference> differences;
    if (a.text("compare").empty()) {
        differences = contradictions(*read, drawn);
    } else {
        const auto figure = parcelIn(a, 1 / factor);
        if (!figure) return tl::unexpected(figure.error());
        differences = comparedWith(*read, drawn, *figure);
    }
    if (shape.geometry.courses.empty())
        return badInput("none of its calls can be drawn", a.inputs().front(), 1);
    if (auto written = writeFigure(a, drawn, factor); !written) return tl::unexpected(written.error());

    Outcome out;
    ordered_json courses = ordered_json::array();
    for (std::size_t i = 0; i < drawn.size(); ++i) courses.push_back(courseJson(read->courses[i], drawn[i]));
    ordered_json closure{
        {"distance", shape.geometry.closure.distance}, {"azimuth", nullptr}, {"ratio", nullptr}};
    if (shape.geometry.closure.azimuth) closure["azimuth"] = shape.geometry.closure.azimuth->degrees();
    if (shape.geometry.closure.ratio) closure["ratio"] = *shape.geometry.closure.ratio;
    ordered_json listed = ordered_json::array();
    for (const auto& d : differences) listed.push_back(differenceJson(d));
    ordered_json unread = ordered_json::array();
    for (const auto& range : read->unread) unread.push_back(rangeJson(range));
    const bool called = !read->areas.empty();
    out.json = {{"unit", parcel::unitName(read->unit)},
                {"courses", courses},
                {"closure", closure},
                {"area", shape.geometry.area},
                {"areaCalled", number(called ? read->areas.front().figure.value : 0, called)},
                {"areaUnit", called ? ordered_json(read->areas.front().unit) : ordered_json(nullptr)},
                {"differences", listed},
                {"unread", unread}};
    out.dataIsWrong = !differences.empty() || !read->unread.empty() || !shape.gapExplained();
    out.text = std::to_string(drawn.size()) + " courses, closing within " +
               formatFixed(shape.geometry.closure.distance, 3) + " " +
               std::string(parcel::unitName(read->unit)) + "\n" +
               wordsFor(listed, read->unread.size(), !shape.gapExplained());
    return out;
}

}  // namespace

std::vector<Operation> descriptionOperations() {
    return {
        {"read-description", "Reads a legal description back into courses and compares them with a parcel.",
         "erdwerk-cli read-description data/demo/plot.txt --unit m --compare data/demo/plot.gpkg -o "
         "called.gpkg "
         "--json",
         [](Options& options) {
             options.inputs("text", "a text file in UTF-8").needed().count(1);
             options.text("--at", "E,N of the point of beginning (0,0)");
             options.number("--azimuth-of-north",
                            "azimuth in the plan, in degrees, of the north that is called (0)");
             options
                 .text("--unit",
                       "of the plan, and of lengths when the text does not say: m, ft, ftUS or chain (what "
                       "the text says, else m)")
                 .among({"m", "ft", "ftUS", "chain"});
             options.text("--compare", "vector file with one closed line; curves are kept");
             outputOption(options, "the figure as called: .gpkg or .geojson");
         },
         readBack}};
}

}  // namespace erdwerk::cli
