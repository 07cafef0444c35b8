#include "core/operations/record_rows.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "core/annotate/label.h"
#include "core/derive/earthwork_result.h"
#include "core/derive/parcel_result.h"
#include "core/derive/tags.h"
#include "core/geometry/element.h"
#include "core/linework/to_next.h"
#include "core/objects/earthwork.h"
#include "core/objects/label.h"
#include "core/objects/points.h"
#include "core/operations/lines.h"
#include "core/parcel/parcel.h"
#include "core/route/alignment.h"

namespace erdwerk::operations {

using derive::Derived;
using objects::Table;
using objects::TableSort;

namespace {

using Cells = std::vector<RecordCell>;

RecordCell text(std::string words) {
    return {std::move(words), {}, 0};
}

RecordCell figure(double value, int decimals) {
    return {formatFixed(value, decimals), value, decimals};
}

/// Rows of one sort, all columns, as the objects come.
class Maker {
public:
    Maker(const Derived& derived, const Table& table) : derived_(derived), table_(table) {
        display_ = derived.document.settings().display;
        factor_ = table.unit ? metresPer(display_.unit) / metresPer(*table.unit) : 1;
        if (table.unit) display_.unit = *table.unit;
    }

    RecordRows make();

    struct Sort;
    static const Sort& of(TableSort sort);

private:
    RecordCell length(double value) const { return figure(value * factor_, display_.lengthDecimals); }
    RecordCell area(double value) const { return figure(value * factor_ * factor_, display_.lengthDecimals); }
    RecordCell volume(double value) const {
        return figure(value * factor_ * factor_ * factor_, display_.lengthDecimals);
    }
    RecordCell height(const std::optional<double>& value) const {
        return value ? figure(*value * factor_, display_.heightDecimals) : RecordCell{};
    }
    RecordCell direction(Angle azimuth) const { return text(formatDirection(azimuth, display_)); }
    RecordCell angle(Angle turn) const { return text(formatAngle(turn, display_.angleUnit)); }
    RecordCell nameOf(ObjectId id) const { return text(derived_.document.nameOf(id)); }
    [[nodiscard]] bool listed(ObjectId id) const {
        return table_.of.empty() || std::find(table_.of.begin(), table_.of.end(), id) != table_.of.end();
    }
    void add(ObjectId of, Cells cells, std::optional<std::size_t> part = {}) {
        cells.resize(rows_.header.size());
        rows_.rows.push_back({std::move(cells), of, part});
    }

    void courses() {
        for (const auto& [id, parcel] : derived_.parcels) {
            if (!listed(id)) continue;
            int lines = 0;
            int arcs = 0;
            for (const auto& c : parcel->geometry.courses) {
                Cells row{nameOf(id),
                          text(c.isCurve ? "C" + std::to_string(++arcs) : "L" + std::to_string(++lines)),
                          text(c.isCurve ? "curve" : "line"), direction(c.azimuth), length(c.distance)};
                if (c.isCurve)
                    row.insert(row.end(), {length(c.radius), angle(c.delta), length(c.arcLength),
                                           text(c.right ? "right" : "left")});
                row.resize(9);
                run(row, c.azimuth.radians(), c.distance * factor_);
                run(row, roundedAzimuth(c.azimuth), rounded(c.distance * factor_, display_.lengthDecimals));
                add(id, std::move(row));
            }
        }
    }

    /// How far it runs north and east: latitude and departure.
    void run(Cells& row, double azimuth, double distance) const {
        row.push_back(figure(distance * std::cos(azimuth), display_.lengthDecimals + 2));
        row.push_back(figure(distance * std::sin(azimuth), display_.lengthDecimals + 2));
    }
    static double rounded(double value, int decimals) {
        const double scale = std::pow(10.0, decimals);
        return std::round(value * scale) / scale;
    }
    /// As directions are written: to the second, or to four decimals of a degree or gon.
    [[nodiscard]] double roundedAzimuth(Angle azimuth) const {
        switch (display_.angleUnit) {
            case AngleUnit::Gon:
                return Angle::gon(rounded(azimuth.gon(), 4)).radians();
            case AngleUnit::DecimalDegrees:
                return Angle::degrees(rounded(azimuth.degrees(), 4)).radians();
            case AngleUnit::DegreesMinutesSeconds:
                break;
        }
        return Angle::degrees(std::round(azimuth.degrees() * 3600) / 3600).radians();
    }
    /// "1 : 12000" as its second figure; empty where it closes exactly.
    static RecordCell ratio(const parcel::Closure& closure) {
        return closure.ratio && *closure.ratio < 1e9 ? figure(*closure.ratio, 0) : RecordCell{};
    }

    void curve(ObjectId of, int number, const parcel::Course& c) {
        // The tangents are as long as a straight angle allows; beyond that they never meet.
        const double half = c.delta.radians() / 2;
        const bool meets = half < std::numbers::pi / 2 - 1e-9;
        add(of, {nameOf(of), text("C" + std::to_string(number)), length(c.radius), angle(c.delta),
                 length(c.arcLength), direction(c.azimuth), length(c.distance),
                 meets ? length(c.radius * std::tan(half)) : RecordCell{}, text(c.right ? "right" : "left")});
    }

    void curves() {
        for (const auto& [id, parcel] : derived_.parcels) {
            int number = 0;
            for (const auto& c : parcel->geometry.courses)
                if (c.isCurve && listed(id)) curve(id, ++number, c);
        }
        for (const auto& [id, alignment] : derived_.alignments) {
            // Arcs only: a spiral has no radius of its own.
            int number = 0;
            for (const auto& element : alignment->path)
                if (arcOf(element) && listed(id))
                    curve(id, ++number, parcel::survey({element}).courses.front());
        }
    }

    void points() {
        for (const ObjectId id : derived_.document.all<objects::Points>()) {
            if (!listed(id)) continue;
            std::size_t i = 0;
            for (const auto& block : derived_.document.get<objects::Points>(id)->set.blocks())
                for (const auto& p : *block)
                    add(id,
                        {nameOf(id), text(p.number), length(p.plan.x), length(p.plan.y), height(p.height),
                         text(p.code), text(p.note)},
                        i++);
        }
    }

    void stations() {
        for (const auto& [id, alignment] : derived_.alignments) {
            if (!listed(id)) continue;
            for (const auto& key : alignment->keyPoints)
                add(id, {nameOf(id), text(std::string(route::shortName(key.kind))),
                         text(formatStation(key.station * factor_, display_)), length(key.place.x),
                         length(key.place.y), direction(key.direction)});
        }
    }

    void areas() {
        for (const auto& [id, parcel] : derived_.parcels) {
            if (!listed(id)) continue;
            const auto& g = parcel->geometry;
            add(id,
                {nameOf(id), area(g.area),
                 figure(g.area * factor_ * factor_ / areaPerLargeUnit(display_.unit), 4), length(g.perimeter),
                 figure(g.closure.distance * factor_, display_.lengthDecimals + 2), ratio(g.closure),
                 figure(parcel->rounded.distance * factor_, display_.lengthDecimals + 2),
                 ratio(parcel->rounded)});
        }
    }

    void volumes() {
        for (const auto& [id, work] : derived_.earthworks) {
            const auto* object = derived_.document.get<objects::Earthwork>(id);
            if (!work->problem.empty() || object == nullptr || !listed(id) ||
                object->sort == objects::EarthworkSort::Batter)
                continue;
            add(id, {nameOf(id), volume(work->volumes.cut), volume(work->volumes.fill), volume(work->net)});
        }
    }

    void controls() {
        const auto names = namesIn(derived_.document);
        for (const auto& [id, resolved] : derived_.lines) {
            const auto* line = derived_.definition(id);
            if (line == nullptr || !listed(id)) continue;
            int number = 0;
            for (std::size_t i = 0; i < line->vertices.size() && i < resolved->vertices.size(); ++i) {
                if (!linework::isControl(line->vertices[i].rule)) continue;
                const auto& v = resolved->vertices[i];
                const auto next = linework::toNext(*line, *resolved, i);
                add(id,
                    {nameOf(id), figure(++number, 0), length(v.distance), length(v.place.x),
                     length(v.place.y), height(v.height),
                     text(linework::ruleText(line->vertices[i].rule, names)),
                     next ? text(formatGrade(next->grade(), display_)) : RecordCell{}},
                    i);
            }
        }
    }

    void stages() {
        for (const auto& [id, work] : derived_.earthworks) {
            if (!work->storage || !listed(id)) continue;
            for (const auto& stage : work->storage->stages)
                add(id, {nameOf(id), height(stage.height), area(stage.area), volume(stage.volume)});
        }
    }

    void tags() {
        for (const auto& [label, tag] : derive::tagsOf(derived_)) {
            const auto& of = *derived_.document.get<objects::Label>(label);
            const auto& shape = derived_.labels.at(label)->stretch;
            if (shape.empty() || !(listed(of.target) || listed(label))) continue;
            const auto c = parcel::survey(shape).courses.front();
            Cells row{nameOf(of.target), text(tag), direction(c.azimuth), length(c.distance)};
            if (c.isCurve) row.insert(row.end(), {length(c.radius), angle(c.delta), length(c.arcLength)});
            add(label, std::move(row));
        }
    }

    const Derived& derived_;
    const Table& table_;
    DisplaySettings display_;
    double factor_ = 1;
    RecordRows rows_;
};

/// Texts with figures in them compare as those: L2 before L10.
bool before(const std::string& a, const std::string& b) {
    std::size_t i = 0;
    std::size_t j = 0;
    const auto digit = [](char c) { return c >= '0' && c <= '9'; };
    while (i < a.size() && j < b.size()) {
        if (digit(a[i]) && digit(b[j])) {
            std::size_t u = i;
            std::size_t v = j;
            while (u < a.size() && digit(a[u])) ++u;
            while (v < b.size() && digit(b[v])) ++v;
            const auto stripped = [](std::string s) {
                return s.erase(0, std::min(s.find_first_not_of('0'), s.size()));
            };
            const std::string one = stripped(a.substr(i, u - i));
            const std::string other = stripped(b.substr(j, v - j));
            if (one.size() != other.size()) return one.size() < other.size();
            if (one != other) return one < other;
            i = u;
            j = v;
            continue;
        }
        if (a[i] != b[j]) return a[i] < b[j];
        ++i;
        ++j;
    }
    return a.size() - i < b.size() - j;
}

bool before(const RecordCell& a, const RecordCell& b) {
    // Empty cells come last.
    if (a.figure && b.figure) return *a.figure < *b.figure;
    if (a.text.empty() != b.text.empty()) return b.text.empty();
    return before(a.text, b.text);
}

std::vector<std::string> areaColumns(LengthUnit unit) {
    return {"parcel",
            "area",
            unit == LengthUnit::Metre ? "hectares" : "acres",
            "perimeter",
            "misclosure",
            "ratio",
            "rounded misclosure",
            "rounded ratio"};
}

/// One for each sort, in the order of TableSort.
struct Maker::Sort {
    std::vector<std::string> (*columns)(LengthUnit unit);
    void (Maker::*rows)();
    std::size_t more;  ///< of the last columns, that only stand in a table where they are chosen
};

const Maker::Sort& Maker::of(TableSort sort) {
    static const std::array all{
        Sort{[](LengthUnit) -> std::vector<std::string> {
                 return {"parcel",
                         "course",
                         "kind",
                         "direction",
                         "distance",
                         "radius",
                         "delta",
                         "arc",
                         "side",
                         "latitude",
                         "departure",
                         "rounded latitude",
                         "rounded departure"};
             },
             &Maker::courses, 4},
        Sort{[](LengthUnit) -> std::vector<std::string> {
                 return {"object",          "curve", "radius",  "delta", "arc",
                         "chord direction", "chord", "tangent", "side"};
             },
             &Maker::curves, 0},
        Sort{[](LengthUnit) -> std::vector<std::string> {
                 return {"set", "number", "easting", "northing", "height", "code", "note"};
             },
             &Maker::points, 0},
        Sort{[](LengthUnit) -> std::vector<std::string> {
                 return {"alignment", "point", "station", "easting", "northing", "direction"};
             },
             &Maker::stations, 0},
        Sort{areaColumns, &Maker::areas, 3},
        Sort{[](LengthUnit) -> std::vector<std::string> {
                 return {"earthwork", "cut", "fill", "net"};
             },
             &Maker::volumes, 0},
        Sort{[](LengthUnit) -> std::vector<std::string> {
                 return {"line", "control", "distance", "easting", "northing", "height", "rule", "to next"};
             },
             &Maker::controls, 0},
        Sort{[](LengthUnit) -> std::vector<std::string> {
                 return {"pond", "height", "area", "volume"};
             },
             &Maker::stages, 0},
        Sort{[](LengthUnit) -> std::vector<std::string> {
                 return {"object", "tag", "direction", "distance", "radius", "delta", "arc"};
             },
             &Maker::tags, 0}};
    static_assert(all.size() == objects::tableWords.size());
    return all[static_cast<std::size_t>(sort)];
}

RecordRows Maker::make() {
    rows_.name = std::string(objects::tableName(table_.sort));
    rows_.header = of(table_.sort).columns(display_.unit);
    (this->*of(table_.sort).rows)();
    return std::move(rows_);
}

Result<std::size_t> columnAt(const RecordRows& rows, const std::string& column) {
    const auto found = std::find(rows.header.begin(), rows.header.end(), column);
    if (found != rows.header.end()) return static_cast<std::size_t>(found - rows.header.begin());
    std::string known;
    for (const auto& name : rows.header) known += (known.empty() ? "" : ", ") + name;
    return badInput("there is no column '" + column + "' in " + rows.name + "; there are " + known);
}

}  // namespace

std::vector<std::string> columnsOf(TableSort sort, LengthUnit unit) {
    return Maker::of(sort).columns(unit);
}

Result<RecordRows> recordRows(const Derived& derived, const Table& table) {
    auto rows = Maker(derived, table).make();
    if (!table.by.empty()) {
        const auto at = columnAt(rows, table.by);
        if (!at) return tl::unexpected(at.error());
        std::stable_sort(rows.rows.begin(), rows.rows.end(), [&](const RecordRow& a, const RecordRow& b) {
            return table.falling ? before(b.cells[*at], a.cells[*at]) : before(a.cells[*at], b.cells[*at]);
        });
    }
    auto columns = table.columns;
    if (columns.empty()) {
        columns = rows.header;
        columns.resize(columns.size() - Maker::of(table.sort).more);
    }
    std::vector<std::size_t> chosen;
    for (const auto& column : columns) {
        const auto at = columnAt(rows, column);
        if (!at) return tl::unexpected(at.error());
        chosen.push_back(*at);
    }
    for (auto& row : rows.rows) {
        Cells kept;
        kept.reserve(chosen.size());
        for (const std::size_t i : chosen) kept.push_back(row.cells[i]);
        row.cells = std::move(kept);
    }
    rows.header = std::move(columns);
    return rows;
}

}  // namespace erdwerk::operations
