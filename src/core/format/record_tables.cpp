#include "core/format/record_tables.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/csv.h"
#include "core/format/output.h"

namespace erdwerk::format {

namespace {

using derive::Derived;

constexpr std::array<std::string_view, 6> names{"courses",  "curves", "points",
                                                "stations", "areas",  "volumes"};
constexpr double squareMetresPerHectare = 10'000;
/// An acre is 43 560 square feet, of whichever foot.
constexpr double squareFeetPerAcre = 43'560;

class Maker {
public:
    explicit Maker(const Derived& derived)
        : derived_(derived), display_(derived.document.settings().display) {}

    RecordRows make(RecordTable table) {
        rows_.name = std::string(tableName(table));
        switch (table) {
            case RecordTable::Courses:
                courses();
                break;
            case RecordTable::Curves:
                curves();
                break;
            case RecordTable::Points:
                points();
                break;
            case RecordTable::Stations:
                stations();
                break;
            case RecordTable::Areas:
                areas();
                break;
            case RecordTable::Volumes:
                volumes();
                break;
        }
        return std::move(rows_);
    }

private:
    using Row = std::vector<RecordCell>;
    static RecordCell text(std::string words) { return {std::move(words), {}, 0}; }
    static RecordCell figure(double value, int decimals) {
        return {formatFixed(value, decimals), value, decimals};
    }
    RecordCell length(double value) const { return figure(value, display_.lengthDecimals); }
    RecordCell height(const std::optional<double>& value) const {
        return value ? figure(*value, display_.heightDecimals) : RecordCell{};
    }
    RecordCell direction(Angle azimuth) const { return text(formatDirection(azimuth, display_)); }
    RecordCell angle(Angle turn) const { return text(formatAngle(turn, display_.angleUnit)); }
    std::string nameOf(ObjectId id) const { return derived_.document.nameOf(id); }

    void courses() {
        rows_.header = {"parcel", "course", "kind", "direction", "distance",
                        "radius", "delta",  "arc",  "side"};
        for (const auto& [id, parcel] : derived_.parcels) {
            int lines = 0;
            int arcs = 0;
            for (const auto& c : parcel->geometry.courses) {
                Row row{text(nameOf(id)),
                        text(c.isCurve ? "C" + std::to_string(++arcs) : "L" + std::to_string(++lines)),
                        text(c.isCurve ? "curve" : "line"), direction(c.azimuth), length(c.distance)};
                if (c.isCurve)
                    row.insert(row.end(), {length(c.radius), angle(c.delta), length(c.arcLength),
                                           text(c.right ? "right" : "left")});
                else
                    row.resize(rows_.header.size());
                rows_.rows.push_back(std::move(row));
            }
        }
    }

    void curves() {
        rows_.header = {"object",          "curve", "radius",  "delta", "arc",
                        "chord direction", "chord", "tangent", "side"};
        const auto add = [&](ObjectId of, int number, const parcel::Course& c) {
            // The tangents are as long as a straight angle allows; beyond that they never meet.
            const double half = c.delta.radians() / 2;
            const bool meets = half < M_PI / 2 - 1e-9;
            rows_.rows.push_back(
                {text(nameOf(of)), text("C" + std::to_string(number)), length(c.radius), angle(c.delta),
                 length(c.arcLength), direction(c.azimuth), length(c.distance),
                 meets ? length(c.radius * std::tan(half)) : RecordCell{}, text(c.right ? "right" : "left")});
        };
        const auto addAll = [&](ObjectId of, const std::vector<parcel::Course>& all) {
            int number = 0;
            for (const auto& c : all)
                if (c.isCurve) add(of, ++number, c);
        };
        for (const auto& [id, parcel] : derived_.parcels) addAll(id, parcel->geometry.courses);
        for (const auto& [id, alignment] : derived_.alignments) {
            // Arcs only: a spiral has no radius of its own.
            int number = 0;
            for (const auto& element : alignment->path)
                if (arcOf(element)) add(id, ++number, parcel::survey({element}).courses.front());
        }
    }

    void points() {
        rows_.header = {"set", "number", "easting", "northing", "height", "code", "note"};
        for (const ObjectId id : derived_.document.all<objects::Points>())
            for (const auto& block : derived_.document.get<objects::Points>(id)->set.blocks())
                for (const auto& p : *block)
                    rows_.rows.push_back({text(nameOf(id)), text(p.number), length(p.plan.x),
                                          length(p.plan.y), height(p.height), text(p.code), text(p.note)});
    }

    void stations() {
        rows_.header = {"alignment", "point", "station", "easting", "northing", "direction"};
        for (const auto& [id, alignment] : derived_.alignments)
            for (const auto& key : alignment->keyPoints)
                rows_.rows.push_back({text(nameOf(id)), text(std::string(route::shortName(key.kind))),
                                      text(formatStation(key.station, display_)), length(key.place.x),
                                      length(key.place.y), direction(key.direction)});
    }

    void areas() {
        const bool metric = display_.unit == LengthUnit::Metre;
        rows_.header = {"parcel", "area", metric ? "hectares" : "acres", "perimeter", "misclosure"};
        for (const auto& [id, parcel] : derived_.parcels) {
            const auto& g = parcel->geometry;
            rows_.rows.push_back({text(nameOf(id)), length(g.area),
                                  figure(g.area / (metric ? squareMetresPerHectare : squareFeetPerAcre), 4),
                                  length(g.perimeter),
                                  figure(g.closure.distance, display_.lengthDecimals + 2)});
        }
    }

    void volumes() {
        rows_.header = {"earthwork", "cut", "fill", "net"};
        for (const auto& [id, work] : derived_.earthworks) {
            const auto* object = derived_.document.get<objects::Earthwork>(id);
            if (!work->problem.empty() || object == nullptr || object->sort == objects::EarthworkSort::Batter)
                continue;
            rows_.rows.push_back(
                {text(nameOf(id)), length(work->volumes.cut), length(work->volumes.fill), length(work->net)});
        }
    }

    const Derived& derived_;
    const DisplaySettings& display_;
    RecordRows rows_;
};

}  // namespace

std::string_view tableName(RecordTable table) {
    return names[static_cast<std::size_t>(table)];
}

std::optional<RecordTable> tableFromName(std::string_view name) {
    const auto at = std::find(names.begin(), names.end(), name);
    if (at == names.end()) return std::nullopt;
    return static_cast<RecordTable>(at - names.begin());
}

RecordRows recordRows(const Derived& derived, RecordTable table) {
    return Maker(derived).make(table);
}

Result<RecordRows> withColumns(RecordRows rows, const std::vector<std::string>& columns) {
    if (columns.empty()) return rows;
    std::vector<std::size_t> at;
    for (const auto& column : columns) {
        const auto found = std::find(rows.header.begin(), rows.header.end(), column);
        if (found == rows.header.end()) {
            std::string known;
            for (const auto& name : rows.header) known += (known.empty() ? "" : ", ") + name;
            return badInput("there is no column '" + column + "' in " + rows.name + "; there are " + known);
        }
        at.push_back(static_cast<std::size_t>(found - rows.header.begin()));
    }
    for (auto& row : rows.rows) {
        std::vector<RecordCell> kept;
        kept.reserve(at.size());
        for (const std::size_t i : at) kept.push_back(row[i]);
        row = std::move(kept);
    }
    rows.header = columns;
    return rows;
}

std::string toCsv(const RecordRows& rows) {
    std::string out;
    const auto line = [&](const auto& cells, const auto& textOf) {
        bool first = true;
        for (const auto& cell : cells) {
            if (!first) out += ',';
            first = false;
            out += csvCell(textOf(cell), ',');
        }
        out += "\r\n";
    };
    line(rows.header, [](const std::string& s) { return s; });
    for (const auto& row : rows.rows) line(row, [](const RecordCell& c) { return c.text; });
    return out;
}

Result<void> writeRecord(const std::string& path, const RecordRows& rows) {
    if (path.ends_with(".csv")) return replaceFile(path, toCsv(rows));
    std::vector<std::vector<SheetCell>> cells;
    cells.reserve(rows.rows.size());
    for (const auto& row : rows.rows) {
        std::vector<SheetCell> line;
        line.reserve(row.size());
        for (const auto& c : row) line.push_back({c.text, c.figure, c.decimals});
        cells.push_back(std::move(line));
    }
    return writeSheetTable(path, rows.name, rows.header, cells);
}

}  // namespace erdwerk::format
