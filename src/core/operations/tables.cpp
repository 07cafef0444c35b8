#include "core/operations/tables.h"

#include <algorithm>
#include <sstream>

#include "core/base/notation.h"
#include "core/operations/edit.h"
#include "core/operations/record_rows.h"

namespace erdwerk::operations {

namespace {

Edit ofTable(ObjectId table, std::function<Result<void>(const Document&, Table&)> change) {
    return [table, change = std::move(change)](const Document& d) -> Result<Edited> {
        const auto* old = d.get<Table>(table);
        if (old == nullptr) return badInput("the table is gone");
        Table next = *old;
        if (auto done = change(d, next); !done) return tl::unexpected(done.error());
        return d.withPayload(table, std::move(next));
    };
}

}  // namespace

Edit newTable(TableSort sort, std::vector<ObjectId> of) {
    return [sort, of = std::move(of)](const Document& d) -> Result<Edited> {
        for (const ObjectId id : of)
            if (!d.find(id)) return badInput("what the table lists is gone");
        std::string stem(objects::tableName(sort));
        stem.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(stem.front())));
        Table table;
        table.sort = sort;
        table.of = of;
        return d.added(document::freshName<Table>(d, stem), std::move(table));
    };
}

Edit setTableColumns(ObjectId table, const std::string& typed) {
    return ofTable(table, [typed](const Document& d, Table& t) -> Result<void> {
        const auto known = columnsOf(t.sort, t.unit.value_or(d.settings().display.unit));
        std::vector<std::string> columns;
        std::istringstream words(typed);
        for (std::string word; std::getline(words, word, ',');) {
            const std::string column(trimmed(word));
            if (column.empty()) continue;
            if (std::find(known.begin(), known.end(), column) == known.end()) {
                std::string all;
                for (const auto& k : known) all += (all.empty() ? "" : ", ") + k;
                return badInput("there is no column '" + column + "'; there are " + all);
            }
            columns.push_back(column);
        }
        t.columns = std::move(columns);
        return {};
    });
}

Edit setTableObjects(ObjectId table, std::vector<ObjectId> of) {
    return ofTable(table, [of = std::move(of)](const Document&, Table& t) -> Result<void> {
        t.of = of;
        return {};
    });
}

}  // namespace erdwerk::operations
