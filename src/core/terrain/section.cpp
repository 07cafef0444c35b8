#include "core/terrain/section.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::terrain {

std::vector<SectionRow> sectionThrough(const std::vector<const TinLocator*>& surfaces,
                                       const std::vector<Vec2>& chain, const SectionOptions& options) {
    std::vector<double> corners{0};
    for (std::size_t i = 1; i < chain.size(); ++i)
        corners.push_back(corners.back() + geometry::distance(chain[i - 1], chain[i]));
    const double length = corners.back();
    std::vector<double> stations = corners;
    if (options.interval > 0) {
        const auto count = static_cast<std::size_t>(std::min(length / options.interval, 1e7));
        for (std::size_t k = 1; k <= count; ++k)
            stations.push_back(options.interval * static_cast<double>(k));
    } else {
        for (const TinLocator* surface : surfaces)
            for (const auto& p : traceChain(*surface, chain)) stations.push_back(p.distance);
    }
    std::sort(stations.begin(), stations.end());
    std::vector<SectionRow> rows;
    std::size_t segment = 0;
    const double same = std::max(1e-9, 1e-9 * length);
    for (const double station : stations) {
        if (station > length + same || (!rows.empty() && station - rows.back().station <= same)) continue;
        while (segment + 2 < corners.size() && station > corners[segment + 1]) ++segment;
        const double along = corners[segment + 1] - corners[segment];
        const double t = along > 0 ? std::clamp((station - corners[segment]) / along, 0.0, 1.0) : 0;
        SectionRow row{station, geometry::lerp(chain[segment], chain[segment + 1], t), {}};
        for (const TinLocator* surface : surfaces) row.heights.push_back(surface->heightAt(row.place));
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
