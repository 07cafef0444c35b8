#include "app/window/finder.h"

#include <QKeyEvent>
#include <QVBoxLayout>
#include <algorithm>

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
    entry_->setPlaceholderText(
        tr("Type a few letters of what you want to do, or the name of something in the project"));
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

void Finder::refresh() {
    struct Hit {
        int score;
        QString text;
        QString tip;
        QVariant data;
        QIcon icon;
        bool enabled;
    };
    std::vector<Hit> hits;
    const QString letters = entry_->text();
    for (const Action& a : actions_.all()) {
        const QString where = a.stage ? stageName(*a.stage) : a.menu;
        const auto score = matchScore(letters, a.text + QStringLiteral(" ") + where);
        if (!score) continue;
        const QString reason = a.whyNot ? a.whyNot() : QString();
        QString text = a.text + QStringLiteral("   ·  ") + where;
        if (!a.key.isEmpty()) text += QStringLiteral("   ") + a.key.toString(QKeySequence::NativeText);
        if (!reason.isEmpty()) text += QStringLiteral("   — ") + reason;
        hits.push_back({*score + (reason.isEmpty() ? 5 : 0), text, a.help, a.id, a.icon, reason.isEmpty()});
    }
    if (letters.size() > 1) {
        for (const auto& [id, object] : session_.document().objects()) {
            const QString name = QString::fromStdString(object->name);
            if (const auto score = matchScore(letters, name))
                hits.push_back({*score,
                                name + QStringLiteral("   ·  ") + kindOf(*object).noun(),
                                tr("Select it"),
                                QVariant::fromValue<qulonglong>(id.value),
                                {},
                                true});
        }
    }
    std::stable_sort(hits.begin(), hits.end(), [](const Hit& a, const Hit& b) { return a.score > b.score; });
    list_->clear();
    for (const Hit& h : hits) {
        auto* item = new QListWidgetItem(h.icon, h.text, list_);
        item->setToolTip(h.tip);
        item->setData(Qt::UserRole, h.data);
        if (!h.enabled) item->setForeground(theme::inkQuiet);
        if (list_->count() >= 40) break;
    }
    list_->setCurrentRow(0);
}

void Finder::choose() {
    const auto* item = list_->currentItem();
    if (item == nullptr) return;
    // What is chosen runs when this window, which it may outlive, has returned: it can turn the event loop
    // itself.
    const QVariant chosen = item->data(Qt::UserRole);
    if (chosen.typeId() == QMetaType::QString)
        QMetaObject::invokeMethod(
            &actions_, [&actions = actions_, id = chosen.toString()] { actions.run(id); },
            Qt::QueuedConnection);
    else
        session_.select({{ObjectId{chosen.toULongLong()}, std::nullopt}});
    accept();
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
