#include "core/document/transaction.h"

#include <algorithm>
#include <map>

#include "core/document/anchors.h"
#include "core/document/edit_trace.h"
#include "core/document/following.h"

namespace erdwerk::document {

namespace {

std::string joined(const std::vector<std::string>& words) {
    std::string out;
    for (std::size_t i = 0; i < words.size(); ++i)
        out += (i == 0 ? "" : (i + 1 == words.size() ? " and " : ", ")) + words[i];
    return out;
}

/// Objects that went without being asked for: what stands on something else that went, or on a part of it.
std::vector<ObjectId> wentAlong(const Document& before, const Change& change, const EditTrace& trace) {
    std::vector<ObjectId> out;
    for (const ObjectId id : change.removed) {
        const auto& payload = before.find(id)->payload;
        const auto named = references(payload);
        bool stands = std::any_of(named.begin(), named.end(), [&](ObjectId other) {
            return std::find(change.removed.begin(), change.removed.end(), other) != change.removed.end();
        });
        // Or on a part that is gone.
        stands = stands || objects::carried(payload, trace, nullptr).state == objects::Carried::State::Gone;
        if (stands) out.push_back(id);
    }
    return out;
}

}  // namespace

std::string listed(const Document& document, const std::vector<ObjectId>& ids) {
    std::map<std::string_view, std::vector<ObjectId>> kinds;
    for (const ObjectId id : ids)
        if (const auto object = document.find(id)) kinds[kindName(object->payload)].push_back(id);
    std::vector<std::string> words;
    words.reserve(kinds.size());
    for (const auto& [kind, of] : kinds)
        words.push_back(of.size() == 1 ? std::string(kind) + " '" + document.nameOf(of.front()) + "'"
                                       : std::to_string(of.size()) + " " + std::string(kind) + "s");
    return joined(words);
}

Edit atOnce(LongEdit edit) {
    return [edit = std::move(edit)](const Document& d) { return edit(d, {}); };
}

Result<void> stillSame(const Document& seen, const std::vector<ObjectId>& objects, const Document& newest) {
    for (const ObjectId id : objects)
        if (seen.find(id) != newest.find(id))
            return badInput("'" + (newest.find(id) ? newest.nameOf(id) : seen.nameOf(id)) +
                            "' changed meanwhile; look again, then press once more");
    return {};
}

LongEdit onlyWhileSame(const Document& seen, std::vector<ObjectId> objects, LongEdit edit) {
    return [seen, objects = std::move(objects), edit = std::move(edit)](
               const Document& newest, const Context& context) -> Result<Edited> {
        if (const auto same = stillSame(seen, objects, newest); !same) return tl::unexpected(same.error());
        return edit(newest, context);
    };
}

Edit onlyWhileSame(const Document& seen, std::vector<ObjectId> objects, Edit edit) {
    return [seen, objects = std::move(objects),
            edit = std::move(edit)](const Document& newest) -> Result<Edited> {
        if (const auto same = stillSame(seen, objects, newest); !same) return tl::unexpected(same.error());
        return edit(newest);
    };
}

Document removeAll(const Document& document, const std::vector<ObjectId>& ids) {
    Document out = document;
    for (const ObjectId id : ids)
        if (out.find(id)) out = out.without(id);
    return out;
}

Result<Performed> perform(const std::string& what, const Edit& edit, const Document& newest) {
    auto edited = edit(newest);
    if (!edited) return tl::unexpected(edited.error());
    if (const auto kept = checkFollowing(newest, edited->document); !kept)
        return tl::unexpected(kept.error());
    const Document followed = withPointsTied(newest, withShapesFollowing(newest, edited->document));
    auto trace = std::make_shared<EditTrace>(newest, followed);
    std::vector<std::string> lost;
    Document next = withPartsCarried(newest, followed, *trace, &lost);
    // An id that was given out stays so.
    next = withLostAnchors(newest, std::move(next)).withNextId(newest.nextId());
    trace->endsWith(next);
    Change change = difference(newest, next);
    auto along = listed(newest, wentAlong(newest, change, *trace));
    for (const auto& word : lost) along += (along.empty() ? "" : " and ") + word;
    Performed out{std::move(next), edited->what.empty() ? what : edited->what, edited->said,
                  std::move(change), std::move(trace)};
    if (!along.empty()) {
        out.said += (out.said.empty() ? "With it went " : ". With it went ") + along;
        out.what += " (with it " + along + ")";
    }
    return out;
}

}  // namespace erdwerk::document
