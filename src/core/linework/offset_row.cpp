#include "core/linework/offset_row.h"

#include <algorithm>

#include "core/base/notation.h"

namespace erdwerk::linework {

namespace {

Result<double> parseRun(std::string_view text) {
    const auto run = parseNumber(text);
    if (!run || *run < 0)
        return badInput("'" + std::string(text) + "' is no run; it is 0 or more, the side is chosen apart");
    return *run;
}

/// "2.5@0 3.5@40"
Result<std::vector<RunAt>> parseChanges(std::string_view text) {
    std::vector<RunAt> out;
    for (text = trimmed(text); !text.empty();) {
        const auto word = text.substr(0, std::min(text.find(' '), text.size()));
        text = trimmed(text.substr(word.size()));
        const auto at = std::min(word.find('@'), word.size());
        const auto distance = at < word.size() ? parseNumber(word.substr(at + 1)) : std::optional<double>{};
        if (!distance || *distance < 0)
            return badInput("'" + std::string(word) +
                            "' says no place; a run that changes is written 2.5@0 3.5@40");
        const auto run = parseRun(word.substr(0, at));
        if (!run) return tl::unexpected(run.error());
        if (!out.empty() && !(*distance > out.back().distance))
            return badInput("'" + std::string(word) + "' does not lie beyond the place before it");
        out.push_back({*distance, *run});
    }
    return out;
}

Result<RowHeight> parseRowHeight(const std::string& typed) {
    RowHeight out{RowHeight::By::Surface, 0, typed};
    if (typed == "=") return out;
    if (!typed.empty() && typed.front() == '=') {
        const auto height = parseNumber(std::string_view(typed).substr(1));
        if (!height) return badInput("'" + typed + "' is no height; write =101.25, or = for the surface");
        out.by = RowHeight::By::Constant;
        out.value = *height;
        return out;
    }
    const auto entry = parseHeightEntry(typed);
    if (entry) {
        if (const auto* rise = std::get_if<TypedRise>(&*entry)) {
            out.by = RowHeight::By::Rise;
            out.value = rise->rise;
            return out;
        }
        if (const auto* grade = std::get_if<TypedGrade>(&*entry)) {
            out.by = RowHeight::By::Grade;
            out.value = grade->grade.riseOverRun();
            return out;
        }
    }
    return badInput("'" + typed + "' is no height of a row; write +0.15, 2%, 3:1, =101.25 or =");
}

}  // namespace

Result<OffsetRow> parseOffsetRow(const std::string& text) {
    const auto comma = std::min(text.find(','), text.size());
    const std::string_view runs = std::string_view(text).substr(0, comma);
    OffsetRow row;
    if (runs.find('@') == std::string_view::npos) {
        const auto run = parseRun(runs);
        if (!run) return tl::unexpected(run.error());
        row.run = *run;
    } else {
        auto changes = parseChanges(runs);
        if (!changes) return tl::unexpected(changes.error());
        row.changes = std::move(*changes);
        row.run = row.changes.front().run;
    }
    if (comma >= text.size()) return row;
    auto height = parseRowHeight(std::string(trimmed(std::string_view(text).substr(comma + 1))));
    if (!height) return tl::unexpected(height.error());
    row.height = std::move(*height);
    return row;
}

std::string rowText(const OffsetRow& row) {
    std::string run = formatExact(row.run);
    if (!row.changes.empty()) {
        run.clear();
        for (const auto& c : row.changes)
            run += (run.empty() ? "" : " ") + formatExact(c.run) + "@" + formatExact(c.distance);
    }
    return row.height.typed.empty() ? run : run + "," + row.height.typed;
}

}  // namespace erdwerk::linework
