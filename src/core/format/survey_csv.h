#pragma once
// Survey points in comma-separated text, in any of the forms field software and spreadsheets write.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/csv.h"
#include "core/base/display.h"
#include "core/base/quantity.h"
#include "core/base/result.h"
#include "core/survey/points.h"

namespace erdwerk::format {

enum class Column { Ignore, Number, Northing, Easting, Height, Code, Note };
std::string_view columnName(Column column);

/// How to read a file. Columns may stand in any order; easting and northing must be among them.
struct CsvLayout {
    char separator = ',';  ///< ' ' stands for any run of spaces and tabs
    bool header = false;   ///< the first row names the columns
    bool decimalComma = false;
    LengthUnit unit = LengthUnit::Metre;  ///< of the file's figures
    std::vector<Column> columns;
};

/// The file as rows of texts. Lines are counted from 1, as an editor shows them.
struct CsvTable {
    struct Row {
        long line = 0;
        std::vector<std::string> cells;
    };
    std::vector<Row> rows;
};

/// UTF-8 with or without a byte-order mark, or Latin-1 (then converted); LF, CRLF or CR. BadInput for what is
/// not text (NUL bytes), for an empty file, and for a row of more than a million characters.
Result<CsvTable> readTable(std::string_view bytes, char separator, const std::string& file,
                           std::size_t mostRows = SIZE_MAX);

/// A proposal from the first rows: the separator that gives the most even columns, decimal comma, header, and
/// the meaning of the columns by their names (number, northing, easting, height, code, note and common
/// synonyms in English and German) or, without names, none.
Result<CsvLayout> proposeLayout(std::string_view bytes, const std::string& file);

/// Meaning of a column by its name; Ignore when it is not known.
Column columnByName(std::string_view name);
/// P number, N northing, E easting, Z height, D code, - ignored.
Result<std::vector<Column>> columnsByLetters(std::string_view letters);

struct SkippedRow {
    long line = 0;
    std::string reason;
};

struct CsvPoints {
    std::vector<survey::SurveyPoint> points;
    std::vector<long> lines;  ///< of each point
    std::vector<SkippedRow> skipped;
};

/// Points in units of `projectUnit`. A row that cannot be read is skipped with its reason: a column is
/// missing, a coordinate is not a finite number or beyond 1e9. An empty height is an absent height; blank
/// rows are passed over.
Result<CsvPoints> readPoints(std::string_view bytes, const CsvLayout& layout, LengthUnit projectUnit,
                             const std::string& file, std::size_t mostRows = SIZE_MAX);

/// number,easting,northing,height,code,note with the shortest exact figures.
std::string writePoints(const std::vector<survey::SurveyPoint>& points,
                        const DisplaySettings* asShown = nullptr);

}  // namespace erdwerk::format
