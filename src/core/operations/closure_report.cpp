#include "core/operations/closure_report.h"

#include <algorithm>
#include <cmath>
#include <vector>

#include "core/derive/parcel_result.h"
#include "core/operations/record_rows.h"
#include "core/parcel/parcel.h"

namespace erdwerk::operations {

namespace {

using Row = std::vector<std::string>;

/// How many signs a text has, of UTF-8.
std::size_t signsOf(const std::string& text) {
    return static_cast<std::size_t>(std::count_if(
        text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0U) != 0x80U; }));
}

/// Columns two blanks apart, all but the first two flush right.
std::string inColumns(const std::vector<Row>& rows) {
    std::vector<std::size_t> widths;
    for (const Row& row : rows) {
        widths.resize(std::max(widths.size(), row.size()));
        for (std::size_t i = 0; i < row.size(); ++i) widths[i] = std::max(widths[i], signsOf(row[i]));
    }
    std::string out;
    for (const Row& row : rows) {
        std::string line;
        for (std::size_t i = 0; i < row.size(); ++i) {
            const std::string blanks(widths[i] - signsOf(row[i]), ' ');
            line += (i > 0 ? "  " : "") + (i < 2 ? row[i] + blanks : blanks + row[i]);
        }
        line.erase(line.find_last_not_of(' ') + 1);
        out += line + "\n";
    }
    return out;
}

std::string said(const parcel::Closure& closure, const DisplaySettings& display) {
    // What is left of sums of sines is no misclosure.
    if (!closure.azimuth || closure.distance < 1e-9) return "closes exactly";
    std::string out = formatFixed(closure.distance, display.lengthDecimals + 3) + " " +
                      std::string(unitSymbol(display.unit)) + " towards " +
                      formatDirection(*closure.azimuth, display);
    if (closure.ratio) out += ", 1 : " + formatFixed(std::floor(*closure.ratio), 0);
    return out;
}

/// The four last columns, summed.
Row sums(const RecordRows& rows, int decimals) {
    std::vector<double> all(4, 0);
    for (const auto& row : rows.rows)
        for (std::size_t i = 0; i < 4; ++i) all[i] += row.cells[row.cells.size() - 4 + i].figure.value_or(0);
    Row out{"sum", "", ""};
    // A zero has no sign.
    for (const double v : all)
        out.push_back(formatFixed(std::abs(v) < 0.5 * std::pow(10, -decimals) ? 0 : v, decimals));
    return out;
}

}  // namespace

Result<std::string> closureReport(const derive::Derived& derived, ObjectId id) {
    const auto* parcel = derive::Derived::in(derived.parcels, id);
    if (parcel == nullptr || parcel->geometry.courses.empty())
        return fail(ErrorCode::NotFound, "the parcel has no courses");
    const auto& display = derived.document.settings().display;
    const auto rows = recordRows(derived, {objects::TableSort::Courses,
                                           {id},
                                           {"course", "direction", "distance", "latitude", "departure",
                                            "rounded latitude", "rounded departure"},
                                           {},
                                           false,
                                           {}});
    if (!rows) return tl::unexpected(rows.error());
    std::vector<Row> lines{
        {"", "", "", "exact", "", "as written", ""},
        {"course", "direction", "distance", "latitude", "departure", "latitude", "departure"}};
    for (const auto& row : rows->rows) {
        lines.emplace_back();
        for (const auto& cell : row.cells) lines.back().push_back(cell.text);
    }
    lines.push_back(sums(*rows, display.lengthDecimals + 2));
    const auto& g = parcel->geometry;
    std::string out = "Closure of " + derived.document.nameOf(id) + "\n" + derived.document.settings().name +
                      ", lengths in " + std::string(unitSymbol(display.unit)) +
                      "; a curve by its chord, latitude northwards, departure eastwards\n\n";
    out += inColumns(lines);
    out += "\nPerimeter          " + formatLength(g.perimeter, display);
    out += "\nMisclosure, exact  " + said(g.closure, display);
    out += "\n        as called  " + said(parcel->rounded, display);
    const double metres = metresPer(display.unit);
    const double square = g.area * metres * metres;
    out += "\nArea               " + formatFixed(square, 2) + " square metres, " +
           formatFixed(square / 1e4, 4) + " hectares\n                   " +
           formatFixed(square / (0.3048 * 0.3048), 1) + " square feet, " +
           formatFixed(square / 4046.8564224, 4) + " acres\n";
    return out;
}

}  // namespace erdwerk::operations
