#include "cli/operation.h"
#include "core/parcel/parcel.h"

namespace erdwerk::cli {

namespace {

using nlohmann::ordered_json;

ordered_json courseJson(const parcel::Course& c) {
    if (!c.isCurve) return {{"kind", "line"}, {"azimuth", c.azimuth.degrees()}, {"distance", c.distance}};
    return {{"kind", "curve"},
            {"radius", c.radius},
            {"delta", c.delta.degrees()},
            {"arcLength", c.arcLength},
            {"chordAzimuth", c.azimuth.degrees()},
            {"chord", c.distance},
            {"side", c.right ? "right" : "left"},
            {"tangent", c.tangent}};
}

Result<Outcome> describe(const Arguments& a) {
    const auto unit = unitFromSymbol(a.unit);
    if (!unit) return badInput("--unit is m, ft or ftUS");
    const auto line = readOneLine(a.parcel, "a parcel");
    if (!line) return tl::unexpected(line.error());
    const auto path = planPath(line->line);
    if (a.begin < 1 || static_cast<std::size_t>(a.begin) > path.size())
        return badInput("--begin counts the corners from 1 to " + std::to_string(path.size()));
    if (a.begin > 1 && !line->line.closed)
        return badInput("a line that does not close begins at its first corner", a.parcel, 1);
    const auto figure = parcel::survey(path, static_cast<std::size_t>(a.begin - 1));
    parcel::DescriptionOptions options;
    options.display.unit = *unit;
    options.name = line->name;
    Outcome out;
    ordered_json courses = ordered_json::array();
    for (const auto& c : figure.courses) courses.push_back(courseJson(c));
    ordered_json closure{{"distance", figure.closure.distance}, {"azimuth", nullptr}, {"ratio", nullptr}};
    if (figure.closure.azimuth) closure["azimuth"] = figure.closure.azimuth->degrees();
    if (figure.closure.ratio) closure["ratio"] = *figure.closure.ratio;
    out.text = parcel::describe(figure, options);
    out.json = {{"area", figure.area},
                {"perimeter", figure.perimeter},
                {"closure", closure},
                {"courses", courses},
                {"text", out.text}};
    out.dataIsWrong = !figure.closure.closes(*unit);
    return out;
}

}  // namespace

std::vector<Operation> parcelOperations() {
    return {
        {"describe", "Courses, closure, area and a metes-and-bounds description of a parcel.",
         "erdwerk-cli describe --parcel data/demo/plot.gpkg",
         [](CLI::App& app, Arguments& a) {
             app.add_option("--parcel", a.parcel, "vector file with one line; curves are kept")->required();
             app.add_option("--unit", a.unit, "unit of the coordinates: m, ft or ftUS (m)")
                 ->check(CLI::IsMember({"m", "ft", "ftUS"}));
             app.add_option("--begin", a.begin, "corner that is the point of beginning, counted from 1 (1)");
         },
         describe}};
}

}  // namespace erdwerk::cli
