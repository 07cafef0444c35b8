#include "core/derive/volume_report.h"

#include "core/derive/edge.h"
#include "core/derive/surface_result.h"

namespace erdwerk::derive {

namespace {

std::string escaped(const std::string& text) {
    std::string out;
    for (const char c : text) {
        if (c == '&')
            out += "&amp;";
        else if (c == '<')
            out += "&lt;";
        else if (c == '>')
            out += "&gt;";
        else
            out += c;
    }
    return out;
}

}  // namespace

Result<VolumeResult> volumesOf(const Derived& derived, const VolumeRequest& request, const Context& context) {
    const auto* from = derived.surface(request.from);
    const auto* to = derived.surface(request.to);
    if (from == nullptr || to == nullptr) return badInput("choose two surfaces");
    if (from == to) return badInput("choose two different surfaces");
    VolumeResult out;
    const auto whole = terrain::volumeBetween(*from, *to, context);
    if (!whole) return tl::unexpected(whole.error());
    out.rows.push_back({"Whole", *whole});
    std::vector<terrain::Region> regions;
    if (request.regions)
        for (const auto& [id, line] : derived.lines) {
            const auto object = derived.document.find(id);
            if (object->group != request.regions || !line->closed) continue;
            auto ring = boundaryAlong(*line, breaklineSagitta).ring;
            if (ring.size() > 2) regions.push_back({object->name, std::move(ring)});
        }
    auto rows = terrain::volumesByRegion(*from, *to, regions, context);
    if (!rows) return tl::unexpected(rows.error());
    for (auto& row : *rows) out.rows.push_back(std::move(row));
    auto map = terrain::cutFillMap(*from, *to, 250'000, context);
    if (!map) return tl::unexpected(map.error());
    out.map = std::move(*map);
    return out;
}

std::string volumeReport(const Derived& derived, const VolumeRequest& request, const VolumeResult& result,
                         const std::string& date) {
    const auto& document = derived.document;
    const auto& display = document.settings().display;
    const std::string unit(unitSymbol(display.unit));
    const auto volume = [&](double v) { return formatFixed(v, 1) + " " + unit + "³"; };
    std::string out =
        "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>Volumes</title><style>"
        "body{font-family:Inter,sans-serif;color:#22303A;margin:2em}"
        "table{border-collapse:collapse}td,th{border:1px solid #D9D3C7;padding:4px 10px;"
        "text-align:right}td:first-child,th:first-child{text-align:left}th{background:#F1EEE7}"
        "</style></head><body>\n";
    out += "<h1>" + escaped(document.settings().name) + ": volumes</h1>\n<p>From " +
           escaped(document.nameOf(request.from)) + " to " + escaped(document.nameOf(request.to)) + ", " +
           escaped(date) +
           ". Worked out exactly between the two triangulations, in plan where both exist.</p>\n";
    out +=
        "<table><tr><th>Region</th><th>Cut</th><th>Fill</th><th>Net (fill − cut)</th><th>Area</th>"
        "<th>Area in cut</th><th>Area in fill</th></tr>\n";
    for (const auto& row : result.rows) {
        const auto& v = row.volumes;
        out += "<tr><td>" + escaped(row.name) + "</td><td>" + volume(v.cut) + "</td><td>" + volume(v.fill) +
               "</td><td>" + volume(v.net()) + "</td><td>" + escaped(formatArea(v.area, display)) +
               "</td><td>" + escaped(formatArea(v.cutArea, display)) + "</td><td>" +
               escaped(formatArea(v.fillArea, display)) + "</td></tr>\n";
    }
    out += "</table>\n<p>Largest cut " + formatLength(result.map.largestCut, display) + ", largest fill " +
           formatLength(result.map.largestFill, display) + ", at the cells of a map of " +
           formatLength(result.map.cell, display) + ".</p>\n</body></html>\n";
    return out;
}

}  // namespace erdwerk::derive
