#include "core/format/route_tables.h"

namespace erdwerk::format {

namespace {

std::vector<std::string> headings(std::vector<std::string> names, LengthUnit unit) {
    for (std::string& name : names) {
        if (name == "name") continue;
        name += name == "grade" ? " [%]" : " [" + std::string(unitSymbol(unit)) + "]";
    }
    return names;
}

}  // namespace

Table profileTable(const std::string& name, const std::vector<route::ProfilePlace>& places, LengthUnit unit) {
    Table out{
        name,
        headings({"station", "distance", "easting", "northing", "ground", "design", "cut", "fill", "grade"},
                 unit),
        {},
        {}};
    out.rows.reserve(places.size());
    for (const auto& p : places)
        out.rows.push_back({p.station, p.distance, p.place.x, p.place.y, p.ground, p.design, p.cut, p.fill,
                            p.grade ? std::optional(p.grade->percent()) : std::nullopt});
    return out;
}

Table stationTable(const std::string& name, const std::vector<operations::StationRow>& rows,
                   LengthUnit unit) {
    Table out{name,
              headings({"name", "station", "distance", "offset", "easting", "northing", "height",
                        "over design", "over ground"},
                       unit),
              {},
              {}};
    out.rows.reserve(rows.size());
    for (const auto& r : rows) {
        out.firstColumn.push_back(r.name);
        // Beside an end there is no station of its own.
        const auto on = [&](double v) { return r.beyond ? std::nullopt : std::optional(v); };
        out.rows.push_back({on(r.station), on(r.distance), on(r.offset), r.place.x, r.place.y, r.height,
                            r.beyond ? std::nullopt : r.overDesign, r.overSurface});
    }
    return out;
}

}  // namespace erdwerk::format
