#include "app/bench/history_page.h"

#include "app/base/theme.h"

namespace erdwerk::app {

HistoryPage::HistoryPage(Session& session, QWidget* parent) : QListWidget(parent), session_(session) {
    setObjectName(QStringLiteral("history"));
    setAccessibleName(tr("History"));
    connect(&session_, &Session::documentChanged, this, &HistoryPage::refresh);
    const auto go = [this](QListWidgetItem* item) { session_.goTo(static_cast<std::size_t>(row(item))); };
    connect(this, &QListWidget::itemClicked, this, go);
    connect(this, &QListWidget::itemActivated, this, go);
    refresh();
}

void HistoryPage::refresh() {
    const auto& history = session_.history();
    const int count = static_cast<int>(history.steps().size());
    // Only the tail differs; a long history is not made anew for each step.
    while (this->count() > count) delete takeItem(this->count() - 1);
    for (int i = 0; i < count; ++i) {
        const QString text = QStringLiteral("%1   %2").arg(i).arg(
            QString::fromStdString(history.steps()[static_cast<std::size_t>(i)].what));
        if (i >= this->count()) addItem(text);
        QListWidgetItem* entry = item(i);
        if (entry->text() != text) entry->setText(text);
        const bool undone = static_cast<std::size_t>(i) > history.position();
        entry->setForeground(undone ? QColor(0x8A, 0x90, 0x94) : theme::ink);
        entry->setFont(theme::font(13, static_cast<std::size_t>(i) == history.position()));
    }
    setCurrentRow(static_cast<int>(history.position()));
}

}  // namespace erdwerk::app

#include "moc_history_page.cpp"
