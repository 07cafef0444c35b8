#include "core/format/survey_csv.h"

#include <csv.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <cmath>

#include "core/base/display.h"
#include "core/base/notation.h"
#include "core/format/text_file.h"

namespace erdwerk::format {

std::string_view columnName(Column column) {
    switch (column) {
        case Column::Number:
            return "number";
        case Column::Northing:
            return "northing";
        case Column::Easting:
            return "easting";
        case Column::Height:
            return "height";
        case Column::Code:
            return "code";
        case Column::Note:
            return "note";
        case Column::Ignore:
            break;
    }
    return "ignored";
}

Column columnByName(std::string_view raw) {
    std::string name;
    // A unit in brackets is no part of the name.
    for (const char c : trimmed(raw.substr(0, raw.find_first_of("[("))))
        if (std::isalpha(static_cast<unsigned char>(c)) != 0)
            name += static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    static const std::array<std::pair<Column, std::vector<std::string>>, 6> synonyms{{
        {Column::Number,
         {"number", "name", "id", "point", "pointnumber", "pointid", "no", "nr", "pt", "p", "nummer", "punkt",
          "punktnummer", "pkt", "pktnr"}},
        {Column::Easting, {"easting", "east", "e", "x", "rechtswert", "ost"}},
        {Column::Northing, {"northing", "north", "n", "y", "hochwert", "nord"}},
        {Column::Height, {"height", "h", "z", "elevation", "elev", "level", "hoehe", "hhe"}},
        {Column::Code, {"code", "description", "desc", "d", "feature"}},
        {Column::Note, {"note", "notes", "text", "remark", "remarks", "comment", "bemerkung"}},
    }};
    for (const auto& [column, names] : synonyms)
        if (std::find(names.begin(), names.end(), name) != names.end()) return column;
    return Column::Ignore;
}

Result<std::vector<Column>> columnsByLetters(std::string_view letters) {
    std::vector<Column> out;
    for (const char c : letters) {
        switch (std::toupper(static_cast<unsigned char>(c))) {
            case 'P':
                out.push_back(Column::Number);
                break;
            case 'N':
                out.push_back(Column::Northing);
                break;
            case 'E':
                out.push_back(Column::Easting);
                break;
            case 'Z':
                out.push_back(Column::Height);
                break;
            case 'D':
                out.push_back(Column::Code);
                break;
            case '-':
                out.push_back(Column::Ignore);
                break;
            default:
                return badInput(std::string("'") + c + "' is not a column; the letters are P N E Z D and -");
        }
    }
    return out;
}

namespace {

constexpr std::size_t longestRow = 1'000'000;

/// Splits one line; quotes as in RFC 4180 through libcsv, runs of blanks by hand.
struct RowSplitter {
    csv_parser parser{};
    char separator;
    std::vector<std::string> cells;

    explicit RowSplitter(char s) : separator(s) {
        csv_init(&parser, CSV_APPEND_NULL);
        csv_set_delim(&parser, static_cast<unsigned char>(s == ' ' ? ',' : s));
    }
    RowSplitter(const RowSplitter&) = delete;
    RowSplitter& operator=(const RowSplitter&) = delete;
    ~RowSplitter() { csv_free(&parser); }

    static void onCell(void* text, std::size_t size, void* self) {
        auto& cells = static_cast<RowSplitter*>(self)->cells;
        cells.emplace_back(text == nullptr ? "" : std::string(static_cast<const char*>(text), size));
    }

    std::vector<std::string> split(std::string_view line) {
        cells.clear();
        if (separator == ' ') {
            std::string word;
            for (const char c : line) {
                if (c != ' ' && c != '\t') {
                    word += c;
                } else if (!word.empty()) {
                    cells.push_back(std::move(word));
                    word.clear();
                }
            }
            if (!word.empty()) cells.push_back(word);
        } else {
            csv_parse(&parser, line.data(), line.size(), onCell, nullptr, this);
            csv_fini(&parser, onCell, nullptr, this);
        }
        for (std::string& cell : cells) cell = std::string(trimmed(cell));
        return std::move(cells);
    }
};

bool openQuote(std::string_view text) {
    return std::count(text.begin(), text.end(), '"') % 2 == 1;
}

}  // namespace

Result<CsvTable> readTable(std::string_view bytes, char separator, const std::string& file,
                           std::size_t mostRows) {
    auto text = asText(bytes, file);
    if (!text) return tl::unexpected(text.error());
    RowSplitter splitter(separator);
    CsvTable table;
    long line = 0;
    for (std::size_t from = 0; from < text->size() && table.rows.size() < mostRows;) {
        const long first = ++line;
        std::size_t end = std::min(text->find_first_of("\r\n", from), text->size());
        // A quoted cell may run over the end of a line.
        while (end < text->size() && openQuote(std::string_view(*text).substr(from, end - from)) &&
               end - from < longestRow) {
            const std::size_t next = text->find_first_of("\r\n", end + 1);
            if (next == std::string::npos) break;
            ++line;
            end = next;
        }
        if (end - from > longestRow)
            return badInput("the row is longer than a million characters", file, first);
        const std::string_view row = std::string_view(*text).substr(from, end - from);
        if (!trimmed(row).empty()) table.rows.push_back({first, splitter.split(row)});
        if (end < text->size() && (*text)[end] == '\r' && end + 1 < text->size() && (*text)[end + 1] == '\n')
            ++end;
        from = end + 1;
    }
    return table;
}

Result<CsvLayout> proposeLayout(std::string_view bytes, const std::string& file) {
    CsvLayout best;
    double bestScore = -1;
    for (const char separator : {',', ';', '\t', ' '}) {
        const auto table =
            readTable(bytes.substr(0, std::min<std::size_t>(bytes.size(), 200'000)), separator, file, 50);
        if (!table) return tl::unexpected(table.error());
        const auto& rows = table->rows;
        const std::size_t columns = rows.back().cells.size();
        if (columns < 2) continue;
        for (const bool comma : {false, true}) {
            if (comma && separator == ',') continue;
            double numbers = 0;
            double even = 0;
            for (std::size_t r = 1; r < std::max<std::size_t>(rows.size(), 2); ++r) {
                const auto& cells = rows[std::min(r, rows.size() - 1)].cells;
                even += cells.size() == columns ? 1 : 0;
                for (const auto& cell : cells) numbers += parseNumber(cell, comma) ? 1 : 0;
            }
            const double score = even * 4 + numbers;
            if (score <= bestScore) continue;
            bestScore = score;
            best.separator = separator;
            best.decimalComma = comma;
            best.columns.assign(columns, Column::Ignore);
            const auto& first = rows.front().cells;
            best.header = std::any_of(first.begin(), first.end(),
                                      [](const auto& c) { return columnByName(c) != Column::Ignore; });
            if (best.header) {
                best.columns.clear();
                for (const auto& cell : first) best.columns.push_back(columnByName(cell));
            }
        }
    }
    if (bestScore < 0)
        return badInput("no columns found: rows need at least two cells with , ; tab or spaces between", file,
                        1);
    return best;
}

namespace {

class PointReader {
public:
    PointReader(const CsvLayout& layout, LengthUnit projectUnit)
        : layout_(layout), projectUnit_(projectUnit) {
        for (std::size_t i = 0; i < layout.columns.size(); ++i)
            at_[static_cast<std::size_t>(layout.columns[i])] = static_cast<int>(i);
    }

    [[nodiscard]] bool has(Column c) const { return at_[static_cast<std::size_t>(c)] >= 0; }

    /// The point, or why the row gives none.
    Result<survey::SurveyPoint> read(const std::vector<std::string>& cells) const {
        survey::SurveyPoint p;
        for (const auto& [column, target] :
             {std::pair{Column::Easting, &p.plan.x}, std::pair{Column::Northing, &p.plan.y}}) {
            const auto value = figure(cells, column);
            if (!value) return tl::unexpected(value.error());
            if (!*value) return badInput(std::string(columnName(column)) + " is empty");
            *target = **value;
        }
        if (has(Column::Height)) {
            const auto value = figure(cells, Column::Height);
            if (!value) return tl::unexpected(value.error());
            p.height = *value;
        }
        p.number = text(cells, Column::Number);
        p.code = text(cells, Column::Code);
        p.note = text(cells, Column::Note);
        return p;
    }

private:
    [[nodiscard]] std::string text(const std::vector<std::string>& cells, Column column) const {
        const int i = at_[static_cast<std::size_t>(column)];
        return i >= 0 && static_cast<std::size_t>(i) < cells.size() ? cells[static_cast<std::size_t>(i)]
                                                                    : std::string();
    }

    Result<std::optional<double>> figure(const std::vector<std::string>& cells, Column column) const {
        const int i = at_[static_cast<std::size_t>(column)];
        if (static_cast<std::size_t>(i) >= cells.size()) {
            if (column == Column::Height && cells.size() > 1) return std::optional<double>{};
            return badInput("column " + std::to_string(i + 1) + " (" + std::string(columnName(column)) +
                            ") is missing");
        }
        const std::string& cell = cells[static_cast<std::size_t>(i)];
        if (cell.empty()) return std::optional<double>{};
        const auto value = parseNumber(cell, layout_.decimalComma);
        if (!value)
            return badInput(std::string(columnName(column)) + " '" + cell.substr(0, 40) +
                            "' is not a number");
        if (std::abs(*value) > 1e9)
            return badInput(std::string(columnName(column)) + " " + cell.substr(0, 40) + " is out of range");
        return std::optional<double>{convertLength(*value, layout_.unit, projectUnit_)};
    }

    const CsvLayout& layout_;
    LengthUnit projectUnit_;
    std::array<int, 7> at_{-1, -1, -1, -1, -1, -1, -1};
};

}  // namespace

Result<CsvPoints> readPoints(std::string_view bytes, const CsvLayout& layout, LengthUnit projectUnit,
                             const std::string& file, std::size_t mostRows) {
    const PointReader reader(layout, projectUnit);
    if (!reader.has(Column::Easting) || !reader.has(Column::Northing))
        return badInput("say which columns are easting and northing", file, 1);
    const auto table = readTable(bytes, layout.separator, file, mostRows);
    if (!table) return tl::unexpected(table.error());
    CsvPoints out;
    for (std::size_t r = layout.header ? 1 : 0; r < table->rows.size(); ++r) {
        const auto& row = table->rows[r];
        auto point = reader.read(row.cells);
        if (point) {
            out.points.push_back(std::move(*point));
            out.lines.push_back(row.line);
        } else {
            out.skipped.push_back({row.line, point.error().text});
        }
    }
    return out;
}

std::string writePoints(const std::vector<survey::SurveyPoint>& points, const DisplaySettings* asShown) {
    std::string unit;
    if (asShown != nullptr) unit = " [" + std::string(unitSymbol(asShown->unit)) + "]";
    const auto plan = [&](double v) {
        return asShown ? formatFixed(v, asShown->lengthDecimals) : formatExact(v);
    };
    const auto height = [&](double v) {
        return asShown ? formatFixed(v, asShown->heightDecimals) : formatExact(v);
    };
    std::string out = "number,easting" + unit + ",northing" + unit + ",height" + unit + ",code,note\n";
    for (const auto& p : points) {
        out += csvCell(p.number) + "," + plan(p.plan.x) + "," + plan(p.plan.y) + ",";
        out += (p.height ? height(*p.height) : std::string()) + "," + csvCell(p.code) + "," +
               csvCell(p.note) + "\n";
    }
    return out;
}

}  // namespace erdwerk::format
