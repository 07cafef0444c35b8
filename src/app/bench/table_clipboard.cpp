#include "app/bench/table_clipboard.h"

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QKeyEvent>
#include <algorithm>
#include <map>

namespace erdwerk::app {

TableClipboard::TableClipboard(QAbstractItemView& view, Session& session, CellEdit edit)
    : QObject(&view), view_(view), session_(session), edit_(std::move(edit)) {
    view_.installEventFilter(this);
    view_.setContextMenuPolicy(Qt::CustomContextMenu);
    connect(&view_, &QWidget::customContextMenuRequested, this, &TableClipboard::showMenu);
}

bool TableClipboard::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        const bool withHeadings =
            key->key() == Qt::Key_C && key->modifiers() == (Qt::ControlModifier | Qt::ShiftModifier);
        if (withHeadings || key->matches(QKeySequence::Copy)) {
            copy(withHeadings);
            return true;
        }
        if (edit_ && key->matches(QKeySequence::Paste)) {
            paste();
            return true;
        }
    }
    return QObject::eventFilter(watched, event);
}

void TableClipboard::copy(bool withHeadings) {
    const auto* model = view_.model();
    // By row and column, whatever order they were selected in; a tree's rows by their place.
    std::map<int, std::map<int, QString>> cells;
    std::map<int, QString> headings;
    for (const QModelIndex& cell : view_.selectionModel()->selectedIndexes()) {
        cells[cell.row()][cell.column()] = cell.data(Qt::DisplayRole).toString();
        headings[cell.column()] = model->headerData(cell.column(), Qt::Horizontal).toString();
    }
    if (cells.empty()) return;
    QStringList rows;
    const auto line = [&](const std::map<int, QString>& row) {
        QStringList out;
        for (const auto& [column, heading] : headings) {
            const auto it = row.find(column);
            QString text = it == row.end() ? QString() : it->second;
            // A text with a tab or a line end would fall apart.
            if (text.contains(QLatin1Char('\t')) || text.contains(QLatin1Char('\n')))
                text = QLatin1Char('"') + text.replace(QLatin1Char('"'), QStringLiteral("\"\"")) +
                       QLatin1Char('"');
            out << text;
        }
        return out.join(QLatin1Char('\t'));
    };
    if (withHeadings) rows << line(headings);
    for (const auto& [row, texts] : cells) rows << line(texts);
    QApplication::clipboard()->setText(rows.join(QLatin1Char('\n')));
    Q_EMIT session_.message(cells.size() == 1 ? tr("1 row copied") : tr("%1 rows copied").arg(cells.size()),
                            false);
}

void TableClipboard::paste() {
    const auto selected = view_.selectionModel()->selectedIndexes();
    QModelIndex from = view_.currentIndex();
    for (const QModelIndex& cell : selected)
        if (!from.isValid() || cell.row() < from.row() ||
            (cell.row() == from.row() && cell.column() < from.column()))
            from = cell;
    QString text = QApplication::clipboard()->text();
    text.remove(QLatin1Char('\r'));
    if (text.endsWith(QLatin1Char('\n'))) text.chop(1);
    if (!from.isValid() || text.isEmpty()) return;
    std::vector<document::Edit> edits;
    int row = from.row();
    for (const QString& line : text.split(QLatin1Char('\n'))) {
        int column = from.column();
        for (const QString& value : line.split(QLatin1Char('\t'))) {
            const QModelIndex cell = view_.model()->index(row, column);
            const auto edit = cell.isValid() ? edit_(cell, value.trimmed()) : std::nullopt;
            if (!cell.isValid())
                return Q_EMIT session_.message(
                    tr("The table ends before what is pasted does; nothing was changed"), true);
            // What cannot be typed in may be pasted over when it says the same.
            if (!edit && cell.data().toString() != value.trimmed())
                return Q_EMIT session_.message(
                    tr("Row %1, %2 cannot be typed in; nothing was changed")
                        .arg(row + 1)
                        .arg(view_.model()->headerData(column, Qt::Horizontal).toString()),
                    true);
            if (edit) edits.push_back(*edit);
            ++column;
        }
        ++row;
    }
    const QString what = edits.size() == 1 ? tr("Paste a cell") : tr("Paste %1 cells").arg(edits.size());
    session_.edit(what, [edits](const document::Document& given) -> Result<document::Edited> {
        document::Document d = given;
        for (const auto& edit : edits) {
            auto next = edit(d);
            if (!next) return tl::unexpected(next.error());
            d = std::move(next->document);
        }
        return d;
    });
}

void TableClipboard::showMenu(QPoint at) {
    auto* menu = new QMenu(&view_);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    const bool any = view_.selectionModel()->hasSelection();
    const auto add = [&](const QString& text, const QKeySequence& key, bool enabled, auto run) {
        auto* item = menu->addAction(text + QLatin1Char('\t') + key.toString(QKeySequence::NativeText));
        item->setEnabled(enabled);
        connect(item, &QAction::triggered, this, run, Qt::QueuedConnection);
    };
    add(tr("Copy"), QKeySequence::Copy, any, [this] { copy(false); });
    add(tr("Copy with headings"), QKeySequence(QStringLiteral("Ctrl+Shift+C")), any, [this] { copy(true); });
    if (edit_) add(tr("Paste"), QKeySequence::Paste, view_.currentIndex().isValid(), [this] { paste(); });
    Q_EMIT menuAsked(menu);
    menu->popup(view_.viewport()->mapToGlobal(at));
}

}  // namespace erdwerk::app

#include "moc_table_clipboard.cpp"
