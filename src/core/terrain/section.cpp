#include "core/terrain/section.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::terrain {

std::vector<SectionRow> sectionThrough(const std::vector<const TinLocator*>& surfaces,
                                       const geometry::Path& path, const SectionOptions& options) {
    constexpr double drawn = 0.01;
    std::vector<double> starts{0};
    for (const auto& element : path) starts.push_back(starts.back() + lengthOf(element));
    const double length = starts.back();
    const double same = std::max(1e-9, 1e-9 * length);
    std::vector<double> stations = starts;
    std::vector<std::vector<SectionPoint>> met(surfaces.size());
    if (options.interval > 0) {
        const auto count = static_cast<std::size_t>(std::min(length / options.interval, 1e7));
        for (std::size_t k = 1; k <= count; ++k)
            stations.push_back(options.interval * static_cast<double>(k));
    } else {
        for (std::size_t s = 0; s < surfaces.size(); ++s) {
            met[s] = tracePath(*surfaces[s], path, drawn);
            for (const auto& p : met[s]) stations.push_back(p.distance);
        }
    }
    std::sort(stations.begin(), stations.end());
    std::vector<SectionRow> rows;
    std::size_t element = 0;
    std::vector<std::size_t> next(surfaces.size(), 0);
    for (const double station : stations) {
        if (station > length + same || (!rows.empty() && station - rows.back().station <= same)) continue;
        while (element + 1 < path.size() && station > starts[element + 1]) ++element;
        const double along = starts[element + 1] - starts[element];
        const double t = along > 0 ? std::clamp((station - starts[element]) / along, 0.0, 1.0) : 0;
        SectionRow row{station, pointAt(path[element], t), {}};
        for (std::size_t s = 0; s < surfaces.size(); ++s) {
            // What was met there has its height from the edge that was met.
            std::size_t& k = next[s];
            while (k < met[s].size() && met[s][k].distance < station - same) ++k;
            const bool there = k < met[s].size() && met[s][k].distance <= station + same && met[s][k].height;
            row.heights.push_back(there ? met[s][k].height : surfaces[s]->heightAt(row.place));
        }
        rows.push_back(std::move(row));
    }
    return rows;
}

std::string_view fieldName(SectionField field) {
    switch (field) {
        case SectionField::Station:
            return "Station";
        case SectionField::Easting:
            return "Easting";
        case SectionField::Northing:
            return "Northing";
        case SectionField::Height:
            return "Height";
        case SectionField::Grade:
            return "Grade to next (%)";
        case SectionField::Difference:
            break;
    }
    return "Difference";
}

SectionTable tableOf(const std::vector<SectionRow>& rows, const std::vector<std::string>& surfaceNames,
                     const std::vector<SectionField>& fields) {
    SectionTable table;
    using Cell = std::optional<double>;
    std::vector<std::vector<Cell>> columns;
    const auto column = [&](std::string header, const auto& cell) {
        table.header.push_back(std::move(header));
        columns.emplace_back();
        for (std::size_t i = 0; i < rows.size(); ++i) columns.back().push_back(cell(i));
    };
    for (const SectionField field : fields) {
        const std::string name(fieldName(field));
        switch (field) {
            case SectionField::Station:
                column(name, [&](std::size_t i) { return Cell{rows[i].station}; });
                break;
            case SectionField::Easting:
                column(name, [&](std::size_t i) { return Cell{rows[i].place.x}; });
                break;
            case SectionField::Northing:
                column(name, [&](std::size_t i) { return Cell{rows[i].place.y}; });
                break;
            case SectionField::Height:
                for (std::size_t s = 0; s < surfaceNames.size(); ++s)
                    column(surfaceNames[s], [&](std::size_t i) { return rows[i].heights[s]; });
                break;
            case SectionField::Grade:
                for (std::size_t s = 0; s < surfaceNames.size(); ++s)
                    column(surfaceNames[s] + ", grade to next (%)", [&](std::size_t i) -> Cell {
                        if (i + 1 >= rows.size() || !rows[i].heights[s] || !rows[i + 1].heights[s]) return {};
                        return 100 * (*rows[i + 1].heights[s] - *rows[i].heights[s]) /
                               (rows[i + 1].station - rows[i].station);
                    });
                break;
            case SectionField::Difference:
                for (std::size_t s = 1; s < surfaceNames.size(); ++s)
                    column(surfaceNames[s] + " − " + surfaceNames[0], [&](std::size_t i) -> Cell {
                        if (!rows[i].heights[s] || !rows[i].heights[0]) return {};
                        return *rows[i].heights[s] - *rows[i].heights[0];
                    });
                break;
        }
    }
    table.rows.resize(rows.size());
    for (std::size_t i = 0; i < rows.size(); ++i)
        for (const auto& c : columns) table.rows[i].push_back(c[i]);
    return table;
}

}  // namespace erdwerk::terrain
