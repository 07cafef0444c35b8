#include <iterator>
#include <sstream>

#include "cli/operation.h"
#include "core/base/notation.h"
#include "core/format/description_file.h"
#include "core/format/project_file.h"
#include "core/format/record_tables.h"
#include "core/parcel/description.h"

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

ordered_json closureJson(const parcel::Closure& c) {
    ordered_json out{{"distance", c.distance}, {"azimuth", nullptr}, {"ratio", nullptr}};
    if (c.azimuth) out["azimuth"] = c.azimuth->degrees();
    if (c.ratio) out["ratio"] = *c.ratio;
    return out;
}

/// The way of a file from the point of commencement; it is turned round when it begins where it should end.
Result<parcel::Tie> tieOf(const Arguments& a, geometry::Vec2 beginning) {
    const auto line = readOneLine(a.text("commence"), "the way from the point of commencement");
    if (!line) return tl::unexpected(line.error());
    auto path = planPath(line->line);
    if (line->line.closed || path.empty())
        return badInput("the way from the point of commencement is no open line", a.text("commence"), 1);
    if (geometry::distance(path.front().start, beginning) < geometry::distance(path.back().end, beginning))
        path = geometry::reversed(path);
    const double gap = geometry::distance(path.back().end, beginning);
    if (gap > 0.01)
        return badInput("the way from the point of commencement ends " + formatFixed(gap, 3) +
                            " away from the point of beginning",
                        a.text("commence"), 1);
    return parcel::Tie{line->name, parcel::survey(path).courses};
}

Result<parcel::DescriptionOrder> orderOf(const Arguments& a, LengthUnit unit, const std::string& name,
                                         const parcel::ParcelGeometry& figure) {
    parcel::DescriptionOrder order;
    order.display.unit = unit;
    order.name = name;
    order.areaUnits = a.texts("area-unit");
    if (!a.text("names").empty()) {
        auto names = format::readSideNames(a.text("names"), figure.courses.size());
        if (!names) return tl::unexpected(names.error());
        order.names = std::move(*names);
    }
    if (!a.text("commence").empty()) {
        auto tie = tieOf(a, figure.courses.front().start);
        if (!tie) return tl::unexpected(tie.error());
        order.tie = std::move(*tie);
    }
    return order;
}

Result<Outcome> describe(const Arguments& a) {
    const auto unit = unitFromSymbol(a.text("unit"));
    if (!unit) return badInput("--unit is m, ft or ftUS");
    const auto line = readOneLine(a.text("parcel"), "a parcel");
    if (!line) return tl::unexpected(line.error());
    const auto path = planPath(line->line);
    if (a.whole("begin") < 1 || static_cast<std::size_t>(a.whole("begin")) > path.size())
        return badInput("--begin counts the corners from 1 to " + std::to_string(path.size()));
    if (a.whole("begin") > 1 && !line->line.closed)
        return badInput("a line that does not close begins at its first corner", a.text("parcel"), 1);
    const auto figure = parcel::survey(path, static_cast<std::size_t>(a.whole("begin") - 1));
    const auto order = orderOf(a, *unit, line->name, figure);
    if (!order) return tl::unexpected(order.error());
    auto wording = parcel::plainTemplate(*unit);
    if (!a.text("template").empty()) {
        auto own = format::readWording(a.text("template"), wording);
        if (!own) return tl::unexpected(own.error());
        wording = std::move(*own);
    }
    const auto text = written(figure, wording, *order);
    if (!text) return tl::unexpected(text.error());
    if (!a.text("output").empty())
        if (auto done = writeText(a.text("output"), text->text); !done) return tl::unexpected(done.error());
    Outcome out;
    ordered_json courses = ordered_json::array();
    for (const auto& c : figure.courses) courses.push_back(courseJson(c));
    out.text = text->text;
    out.json = {{"area", figure.area},
                {"perimeter", figure.perimeter},
                {"closure", closureJson(figure.closure)},
                {"roundedClosure", closureJson(text->rounded)},
                {"courses", courses},
                {"text", text->text}};
    out.dataIsWrong = !figure.closure.closes(*unit);
    return out;
}

Result<Outcome> table(const Arguments& a) {
    const auto sort = objects::tableFromName(a.inputs().front());
    if (!sort) {
        std::string known;
        for (const auto s : objects::allTableSorts())
            known += (known.empty() ? "" : ", ") + std::string(objects::tableName(s));
        return badInput("'" + a.inputs().front() + "' is no table: " + known);
    }
    objects::Table asked{*sort, {}, {}, a.text("sort"), a.flag("falling"), {}};
    if (!a.text("unit").empty()) asked.unit = unitFromSymbol(a.text("unit"));
    std::istringstream names(a.text("columns"));
    for (std::string name; std::getline(names, name, ',');) asked.columns.emplace_back(trimmed(name));
    operations::RecordRows all;
    for (std::size_t i = 1; i < a.inputs().size(); ++i) {
        auto opened = format::openProjectWithJournal(a.inputs()[i], a.withJournal);
        if (!opened) return tl::unexpected(opened.error());
        const auto derived = derive::evaluate(opened->document);
        if (!derived) return tl::unexpected(derived.error());
        auto rows = operations::recordRows(*derived, asked);
        if (!rows) return tl::unexpected(rows.error());
        if (i == 1) {
            all = std::move(*rows);
        } else if (rows->header == all.header) {
            std::move(rows->rows.begin(), rows->rows.end(), std::back_inserter(all.rows));
        } else {
            return badInput("has another unit than the project before, so its areas do not fit one table",
                            a.inputs()[i]);
        }
    }
    if (auto done = format::writeRecord(a.text("output"), all); !done) return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"rows", all.rows.size()}};
    return out;
}

}  // namespace

std::vector<Operation> parcelOperations() {
    return {{"table", "What a project holds as a table: courses, curves, points, stations, areas and more.",
             "erdwerk-cli table courses data/demo/quillmoor.erdwerk -o courses.csv --json",
             [](Options& options) {
                 options.inputs("inputs", "the table, then projects").needed().count(2, -1);
                 options.text("--columns", "names of columns, in this order (all)");
                 options.text("--sort", "column to sort by (as the objects come)");
                 options.flag("--falling", "the largest first");
                 options.text("--unit", "of lengths, areas and volumes: m, ft or ftUS (the project's)")
                     .among({"m", "ft", "ftUS"});
                 outputOption(options, ".csv or .xlsx");
             },
             table},
            {"describe", "Courses, closure, area and a metes-and-bounds description of a parcel.",
             "erdwerk-cli describe --parcel data/demo/plot.gpkg --template data/demo/wording.json",
             [](Options& options) {
                 options.text("--parcel", "vector file with one line; curves are kept").needed();
                 options.text("--unit", "unit of the coordinates: m, ft or ftUS (m)")
                     .defaultsTo("m")
                     .among({"m", "ft", "ftUS"});
                 options.whole("--begin", "corner that is the point of beginning, counted from 1 (1)")
                     .defaultsTo(1);
                 options.text("--template",
                              "JSON: a sentence for each kind of part, with fields in braces (plain)");
                 options.text("--commence",
                              "vector file with the line from the point of commencement to the beginning");
                 options.text("--names",
                              "CSV course,along,to: what a course runs along, and the thing it runs to");
                 options
                     .texts("--area-unit",
                            "m2, ha, ft2, acre; the others in brackets (m2 and ha, or ft2 and acre)")
                     .among({"m2", "ha", "ft2", "acre"});
                 options.text("-o,--output", "the text: .txt, .odt or .pdf");
             },
             describe}};
}

}  // namespace erdwerk::cli
