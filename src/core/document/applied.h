#pragma once

#include "core/document/transaction.h"

namespace erdwerk::document {

/// What an edit makes of a document; the document as it was where it does not apply.
inline Document applied(const Edit& edit, const Document& document) {
    const auto done = edit(document);
    return done ? done->document : document;
}

}  // namespace erdwerk::document
