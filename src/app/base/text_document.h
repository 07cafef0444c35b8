#pragma once
// A legal description as a document.

#include <QString>
#include <QTextDocument>
#include <memory>

#include "core/base/result.h"

namespace erdwerk::app {

/// Paragraphs as in the text; the names of the point of beginning and of commencement are bold.
std::unique_ptr<QTextDocument> textDocument(const QString& text);
/// As .txt, .odt or .pdf (A4) by the ending. The file appears only when it is whole.
Result<void> writeTextDocument(const QString& path, const QString& text);

}  // namespace erdwerk::app
