#pragma once
// Copying and pasting in a table, by keys and by its menu: the selected cells, with headings where asked, to
// and from a spreadsheet (cells parted by tabs, rows by line ends).

#include <QAbstractItemView>
#include <QMenu>
#include <functional>
#include <optional>

#include "app/base/session.h"

namespace erdwerk::app {

class TableClipboard : public QObject {
    Q_OBJECT
public:
    /// What typing a text into a cell does; nothing for a cell that cannot be typed in.
    using CellEdit =
        std::function<std::optional<document::Edit>(const QModelIndex& cell, const QString& text)>;

    /// Lives as long as the view. Without `edit` nothing can be pasted.
    TableClipboard(QAbstractItemView& view, Session& session, CellEdit edit = {});
    void copy(bool withHeadings);
    /// All cells in one edit, from the uppermost selected one; nothing when one of them is refused.
    void paste();

Q_SIGNALS:
    /// The menu of the table is about to be shown: others add what they know of the row.
    void menuAsked(QMenu* menu);

private:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void showMenu(QPoint at);

    QAbstractItemView& view_;
    Session& session_;
    CellEdit edit_;
};

}  // namespace erdwerk::app
