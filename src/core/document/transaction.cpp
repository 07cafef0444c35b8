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
std::vector<ObjectId> wentAlong(const Document& before, const Document& after) {
    const Change change = difference(before, after);
    std::vector<ObjectId> out;
    if (change.removed.empty()) return out;
    const EditTrace trace(before, after);
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

Edit onlyWhileSame(const Document& seen, std::vector<ObjectId> objects, Edit edit) {
    return [seen, objects = std::move(objects),
            edit = std::move(edit)](const Document& newest) -> Result<Edited> {
        for (const ObjectId id : objects)
            if (seen.find(id) != newest.find(id))
                return badInput("'" + (newest.find(id) ? newest.nameOf(id) : seen.nameOf(id)) +
                                "' changed meanwhile; look again, then press once more");
        return edit(newest);
    };
}

Edit addedSince(const Document& seen, Document made) {
    return [seen, made = std::move(made)](const Document& newest) -> Result<Edited> {
        if (!difference(seen, newest).empty())
            return badInput("the project changed while the file was read; import it again");
        return made;
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
    std::vector<std::string> lost;
    Performed out{
        carried(newest, withPointsTied(newest, withShapesFollowing(newest, edited->document)), &lost),
        edited->what.empty() ? what : edited->what, edited->said};
    out.document = withLostAnchors(newest, std::move(out.document));
    // An id that was given out stays so.
    out.document = out.document.withNextId(newest.nextId());
    auto along = listed(newest, wentAlong(newest, out.document));
    for (const auto& word : lost) along += (along.empty() ? "" : " and ") + word;
    if (!along.empty()) {
        out.said += (out.said.empty() ? "With it went " : ". With it went ") + along;
        out.what += " (with it " + along + ")";
    }
    return out;
}

}  // namespace erdwerk::document
