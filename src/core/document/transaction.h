#pragma once
// An edit is a function of the newest document. What it does to parts that others name, and what goes with
// what it removes, is worked out here, for every edit alike.

#include <functional>
#include <memory>
#include <string>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/document/document.h"

namespace erdwerk::document {

class EditTrace;

/// What an edit gives back.
struct Edited {
    Document document;
    std::string what;       ///< what it did, when only it knows ("Draw Line 4"); empty: what it was asked as
    std::string said = {};  ///< what whoever asked for it should know besides: rules that became heights
    Edited(Document next)
        : document(std::move(next)) {}  // NOLINT(google-explicit-constructor): a document is an edit
    Edited(Document next, std::string did, std::string words = {})
        : document(std::move(next)), what(std::move(did)), said(std::move(words)) {}
};

/// Pure; an Error when it does not apply to the document it is given.
using Edit = std::function<Result<Edited>(const Document&)>;

/// An edit that may take longer than a frame: it says how far it is and can be cancelled.
using LongEdit = std::function<Result<Edited>(const Document&, const Context&)>;

/// A long edit done in one go, for those who wait for it.
Edit atOnce(LongEdit edit);

/// BadInput, "'Ditch' changed meanwhile", when one of these is another object in the newest document.
Result<void> stillSame(const Document& seen, const std::vector<ObjectId>& objects, const Document& newest);

/// An edit that was prepared on `seen` and only holds while these objects are the same in the newest
/// document; else BadInput, "the line changed meanwhile".
Edit onlyWhileSame(const Document& seen, std::vector<ObjectId> objects, Edit edit);
LongEdit onlyWhileSame(const Document& seen, std::vector<ObjectId> objects, LongEdit edit);

struct Performed {
    Document document;
    std::string what;  ///< for the history: what was done, and what went with it
    std::string said;  ///< what went with it and what the edit said, as sentences; may be empty
    Change change;     ///< what differs now; empty for an edit that changed nothing
    std::shared_ptr<const EditTrace> trace;  ///< what became of parts; never null
};

/// Runs an edit on the newest document and carries along all that names parts of what it changes.
Result<Performed> perform(const std::string& what, const Edit& edit, const Document& newest);

/// Removes objects with what cannot be without them. The same for parts of sets: see removePoints.
Document removeAll(const Document& document, const std::vector<ObjectId>& ids);

/// "parcel Plot Q-4, 3 labels and 1 profile"
std::string listed(const Document& document, const std::vector<ObjectId>& ids);

}  // namespace erdwerk::document
