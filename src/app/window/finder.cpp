#include "app/window/finder.h"

#include <QKeyEvent>
#include <QVBoxLayout>
#include <algorithm>

#include "app/base/remembered.h"
#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"

namespace erdwerk::app {

std::optional<int> matchScore(const QString& letters, const QString& text) {
    int score = 0;
    qsizetype at = 0;
    qsizetype last = -2;
    for (const QChar c : letters) {
        if (c.isSpace()) continue;
        qsizetype found = -1;
        // A start of a word is better than the next letter that fits.
        for (qsizetype i = at; i < text.size(); ++i) {
            if (text[i].toLower() != c.toLower()) continue;
            if (found < 0) found = i;
            if (i == last + 1 || i == 0 || !text[i - 1].isLetterOrNumber()) {
                found = i;
                break;
            }
        }
        if (found < 0) return std::nullopt;
        score += found == last + 1 ? 5 : (found == 0 || !text[found - 1].isLetterOrNumber() ? 4 : 0);
        last = found;
        at = found + 1;
    }
    return score * 10 - static_cast<int>(text.size()) / 4;
}

Finder::Finder(ActionList& actions, Session& session, QWidget* parent)
    : QDialog(parent, Qt::Popup), actions_(actions), session_(session) {
    setObjectName(QStringLiteral("finder"));
    setMinimumSize(560, 380);
    auto* layout = new QVBoxLayout(this);
    entry_ = new QLineEdit;
    entry_->setPlaceholderText(tr("A few letters of what you want to do, or of a name in the project"));
    entry_->setAccessibleName(tr("Finder"));
    entry_->setFont(theme::font(15));
    entry_->installEventFilter(this);
    list_ = new QListWidget;
    list_->setAccessibleName(tr("Matches"));
    layout->addWidget(entry_);
    layout->addWidget(list_);
    connect(entry_, &QLineEdit::textChanged, this, &Finder::refresh);
    connect(entry_, &QLineEdit::returnPressed, this, &Finder::choose);
    connect(list_, &QListWidget::itemClicked, this, &Finder::choose);
    refresh();
    entry_->setFocus();
}

void Finder::addActions(const QString& letters) {
    const QStringList used = remembered::lastActions();
    for (const Action& a : actions_.all()) {
        const QString where = a.stage ? stageName(*a.stage) : a.menu;
        auto score = matchScore(letters, a.text + QStringLiteral(" ") + where);
        if (!score && !a.words.isEmpty()) score = matchScore(letters, a.words);
        if (!score) continue;
        const QString reason = a.whyNot ? a.whyNot() : QString();
        QString text = a.text + QStringLiteral("   ·  ") + where;
        if (!a.key.isEmpty()) text += QStringLiteral("   ") + a.key.toString(QKeySequence::NativeText);
        if (!reason.isEmpty()) text += QStringLiteral("   — ") + reason;
        // What was used last comes first while nothing tells them apart.
        const auto at = used.indexOf(a.id);
        const int lately = at < 0 ? 0 : (letters.isEmpty() ? 1000 : 8) - static_cast<int>(at);
        // What is chosen runs when this window, which it may outlive, has returned: it can turn the event
        // loop itself.
        entries_.push_back({*score + lately + (reason.isEmpty() ? 5 : 0), text, a.help, a.icon,
                            reason.isEmpty(),
                            [&actions = actions_, id = a.id] {
                                QMetaObject::invokeMethod(
                                    &actions, [&actions, id] { actions.run(id); }, Qt::QueuedConnection);
                            },
                            a.id});
    }
}

void Finder::addObjects(const QString& letters) {
    for (const auto& [id, object] : session_.document().objects()) {
        const QString name = QString::fromStdString(object->name);
        if (const auto score = matchScore(letters, name))
            entries_.push_back({*score,
                                name + QStringLiteral("   ·  ") + kindOf(*object).noun(),
                                tr("Select it"),
                                {},
                                true,
                                [&session = session_, object = id] {
                                    session.selection().set({{object, std::nullopt}});
                                }});
    }
}

void Finder::addFindings(const QString& letters) {
    const auto snapshot = session_.snapshot();
    std::size_t taken = 0;
    for (const auto& f : snapshot->findings) {
        const QString text = QString::fromStdString(f.text);
        // Letters spread over a sentence fit nearly any: a finding is found by a word of it.
        if (!f.at || !text.contains(letters.trimmed(), Qt::CaseInsensitive) || ++taken > 12) continue;
        entries_.push_back({matchScore(letters, text).value_or(0),
                            text + tr("   ·  finding"),
                            tr("Go there"),
                            {},
                            true,
                            [&session = session_, at = *f.at] { Q_EMIT session.selection().goToPlace(at); }});
    }
}

void Finder::refresh() {
    entries_.clear();
    const QString letters = entry_->text();
    addActions(letters);
    if (letters.size() > 1) {
        addObjects(letters);
        addFindings(letters);
    }
    std::stable_sort(entries_.begin(), entries_.end(),
                     [](const Entry& a, const Entry& b) { return a.score > b.score; });
    constexpr std::size_t most = 40;
    if (entries_.size() > most) entries_.resize(most);
    list_->clear();
    for (const Entry& e : entries_) {
        auto* item = new QListWidgetItem(e.icon, e.text, list_);
        item->setToolTip(e.tip);
        item->setData(Qt::UserRole, e.action);
        if (!e.enabled) item->setForeground(theme::inkQuiet);
    }
    list_->setCurrentRow(0);
}

void Finder::choose() {
    const int row = list_->currentRow();
    if (row < 0) return;
    const auto run = entries_[static_cast<std::size_t>(row)].run;
    accept();
    run();
}

bool Finder::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Down || key == Qt::Key_Up) {
            const int row = list_->currentRow() + (key == Qt::Key_Down ? 1 : -1);
            list_->setCurrentRow(std::clamp(row, 0, std::max(0, list_->count() - 1)));
            return true;
        }
    }
    return QDialog::eventFilter(watched, event);
}

}  // namespace erdwerk::app

#include "moc_finder.cpp"
