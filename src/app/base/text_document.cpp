#include "app/base/text_document.h"

#include <QPageSize>
#include <QPdfWriter>
#include <QRegularExpression>
#include <QTextCursor>
#include <QTextDocumentWriter>

#include "app/base/theme.h"
#include "core/format/output.h"

namespace erdwerk::app {

std::unique_ptr<QTextDocument> textDocument(const QString& text) {
    auto document = std::make_unique<QTextDocument>();
    document->setDefaultFont(theme::font(15));
    document->setPlainText(text.trimmed());
    static const QRegularExpression points(
        QStringLiteral("(true )?(point|place) of (beginning|commencement)"),
        QRegularExpression::CaseInsensitiveOption);
    QTextCharFormat bold;
    bold.setFontWeight(QFont::DemiBold);
    for (QTextCursor at = document->find(points); !at.isNull(); at = document->find(points, at))
        at.mergeCharFormat(bold);
    return document;
}

Result<void> writeTextDocument(const QString& path, const QString& text) {
    const std::string ending = format::endingOf(path.toStdString());
    if (ending == ".txt") return format::replaceFile(path.toStdString(), text.toStdString());
    if (ending != ".odt" && ending != ".pdf")
        return fail(ErrorCode::Unsupported, "a description is written as .txt, .odt or .pdf",
                    path.toStdString());
    const auto document = textDocument(text);
    // On the screen letters are so many pixels; on paper points.
    QFont letters = document->defaultFont();
    letters.setPointSizeF(11);
    document->setDefaultFont(letters);
    return format::replaceFile(path.toStdString(), [&](const std::string& part) -> Result<void> {
        const QString file = QString::fromStdString(part);
        if (ending == ".odt") {
            QTextDocumentWriter writer(file, "odf");
            if (!writer.write(document.get()))
                return fail(ErrorCode::Io, "could not be written", path.toStdString());
            return {};
        }
        QPdfWriter writer(file);
        writer.setPageSize(QPageSize(QPageSize::A4));
        // The document has 2 cm of its own on each side.
        writer.setPageMargins(QMarginsF(2, 0, 2, 0), QPageLayout::Millimeter);
        writer.setTitle(text.section(QLatin1Char('\n'), 0, 0));
        document->print(&writer);
        return {};
    });
}

}  // namespace erdwerk::app
