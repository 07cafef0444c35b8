#include "core/document/following.h"

namespace erdwerk::document {

using objects::Line;
using objects::RowOf;

namespace {

const RowOf* rowOf(const Line& line) {
    return line.follows ? std::get_if<RowOf>(line.follows.get()) : nullptr;
}

}  // namespace

Document withRowsFollowing(const Document& before, Document after) {
    // A row of a row comes after it: each round goes one row on.
    const std::size_t most = after.all<Line>().size();
    bool again = true;
    for (std::size_t round = 0; again && round <= most; ++round) {
        again = false;
        for (const ObjectId id : after.all<Line>()) {
            const Line& line = *after.get<Line>(id);
            const auto* row = rowOf(line);
            if (row == nullptr) continue;
            const auto* source = after.get<Line>(row->line);
            const bool moved = after.find(row->line) != before.find(row->line);
            const auto* was = before.get<Line>(id);
            const bool other = was == nullptr || !objects::sameFollows(*was, line);
            if (source == nullptr || (!moved && !other)) continue;
            auto next = linework::offset(linework::placed(source->line), row->row, row->options);
            if (!next || *next == line.line) continue;
            after = changed<Line>(after, id, [&](Line& l) { l.line = std::move(*next); });
            again = true;
        }
    }
    return after;
}

Result<void> checkFollowing(const Document& before, const Document& after) {
    for (const ObjectId id : difference(before, after).changed) {
        const auto* was = before.get<Line>(id);
        const auto* now = after.get<Line>(id);
        if (was == nullptr || now == nullptr || !now->follows || !objects::sameFollows(*was, *now)) continue;
        if (!(was->line == now->line))
            return badInput("'" + after.nameOf(id) + "' follows '" +
                            after.nameOf(objects::references(after.find(id)->payload).front()) +
                            "'; loosen it first");
    }
    return {};
}

}  // namespace erdwerk::document
