#include "core/linework/row_profile.h"

#include <algorithm>
#include <cmath>

#include "core/base/display.h"
#include "core/linework/offset_row.h"

namespace erdwerk::linework {

std::vector<RowPlace> rowProfile(const std::vector<OffsetRow>& rows, bool chained) {
    std::vector<RowPlace> out;
    for (const auto& row : rows) {
        const RowPlace from = chained && !out.empty() ? out.back() : RowPlace{};
        RowPlace at{from.run + row.run, from.rise, true};
        switch (row.height.by) {
            case RowHeight::By::Same:
                break;
            case RowHeight::By::Rise:
                at.rise += row.height.value;
                break;
            case RowHeight::By::Grade:
                at.rise += row.height.value * row.run;
                break;
            case RowHeight::By::Constant:
            case RowHeight::By::Surface:
                at.known = false;
                break;
        }
        out.push_back(at);
    }
    return out;
}

OffsetRow rowThrough(const std::vector<OffsetRow>& rows, bool chained, std::size_t row, RowPlace place) {
    const RowPlace from = chained && row > 0 ? rowProfile(rows, chained)[row - 1] : RowPlace{};
    OffsetRow out = rows[row];
    const double was = out.run;
    out.run = std::max(0.0, std::round((place.run - from.run) * 100) / 100);
    for (RunAt& c : out.changes) c.run = std::max(0.0, c.run + out.run - was);
    const double rise = std::round((place.rise - from.rise) * 100) / 100;
    std::string typed;
    const auto sign = [](const std::string& text) { return text.front() == '-' ? text : "+" + text; };
    switch (out.height.by) {
        case RowHeight::By::Same:
        case RowHeight::By::Rise:
            if (rise == 0 && out.height.by == RowHeight::By::Same) return out;
            typed = sign(formatExact(rise));
            break;
        case RowHeight::By::Grade:
            if (out.run <= 0) return out;
            if (out.height.typed.find(':') != std::string::npos && rise != 0)
                typed = formatExact(std::round(out.run / rise * 10) / 10) + ":1";
            else
                typed = formatExact(std::round(rise / out.run * 1000) / 10) + "%";
            break;
        case RowHeight::By::Constant:
        case RowHeight::By::Surface:
            return out;
    }
    const auto next = parseOffsetRow(formatExact(out.run) + "," + typed);
    if (next) out.height = next->height;
    return out;
}

}  // namespace erdwerk::linework
