#include "app/window/prompt_line.h"

#include <QCompleter>
#include <QKeyEvent>
#include <QPushButton>
#include <QTimer>
#include <algorithm>
#include <vector>

#include "app/base/theme.h"

namespace erdwerk::app {

namespace {
constexpr int widestEntry = 300;
constexpr int narrowestEntry = 110;
constexpr int narrowestChip = 80;
}  // namespace

PromptLine::PromptLine(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("promptLine"));
    setAttribute(Qt::WA_StyledBackground);
    setStyleSheet(QStringLiteral(
        "#promptLine { background: #FFFFFF; border-top: 1px solid #D9D3C7; border-bottom: 1px solid #D9D3C7; "
        "}"
        "#chip { border: 1px solid #D9D3C7; border-radius: 9px; padding: 1px 9px; background: #F8F6F1; }"));
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(10, 4, 10, 4);
    layout->setSpacing(8);
    title_ = new QLabel;
    title_->setFont(theme::font(13, true));
    title_->setStyleSheet(QStringLiteral("color: #B9502B;"));
    prompt_ = new QLabel;
    prompt_->setObjectName(QStringLiteral("prompt"));
    prompt_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::MinimumExpanding);
    prompt_->setAccessibleName(tr("What is needed next"));
    chips_ = new QWidget;
    chipLayout_ = new QHBoxLayout(chips_);
    chipLayout_->setContentsMargins(0, 0, 0, 0);
    chipLayout_->setSpacing(5);
    entry_ = new QLineEdit;
    entry_->setObjectName(QStringLiteral("entry"));
    entry_->setAccessibleName(tr("Typed entry"));
    entry_->setFixedWidth(widestEntry);
    entry_->installEventFilter(this);
    layout->addWidget(title_);
    layout->addWidget(prompt_, 1);
    layout->addWidget(chips_);
    layout->addWidget(entry_);
    setTool(nullptr);
}

void PromptLine::setTool(Tool* tool) {
    tool_ = tool;
    if (tool_ != nullptr) stepTaken();
    entry_->clear();
    entry_->setCompleter(nullptr);
    if (tool_ != nullptr) {
        connect(tool_, &Tool::changed, this, &PromptLine::refresh);
        connect(tool_, &Tool::failed, this, [this](const QString& reason) { showMessage(reason, true); });
    }
    refresh();
}

void PromptLine::refresh() {
    // What was just said is not wiped away by the next move of the mouse, nor by the end of the tool.
    constexpr qint64 readable = 2500;
    if (messageAge_.isValid() && messageAge_.elapsed() > readable) messageAge_.invalidate();
    const bool said = messageAge_.isValid();
    if (!said) {
        prompt_->setStyleSheet({});
        isError_ = false;
    }
    while (QLayoutItem* item = chipLayout_->takeAt(0)) {
        if (item->widget() != nullptr) item->widget()->deleteLater();
        delete item;
    }
    chipTexts_.clear();
    title_->setVisible(tool_ != nullptr);
    entry_->setVisible(tool_ != nullptr && !tool_->entryHint().isEmpty());
    if (tool_ == nullptr) {
        if (!said)
            prompt_->setText(
                !idle_.isEmpty()
                    ? idle_
                    : tr("Click to select, Shift adds, drag a point or corner to move it. Ctrl+K "
                         "finds every tool."));
        fitParts();
        return;
    }
    title_->setText(tool_->title());
    if (!said) prompt_->setText(tool_->prompt());
    entry_->setPlaceholderText(tool_->entryHint());
    entry_->setToolTip(tool_->entryHint());
    const QStringList words = tool_->completions();
    if (words.isEmpty()) {
        entry_->setCompleter(nullptr);
    } else if (entry_->completer() == nullptr) {
        auto* completer = new QCompleter(words, entry_);
        completer->setCaseSensitivity(Qt::CaseInsensitive);
        completer->setCompletionMode(QCompleter::InlineCompletion);
        entry_->setCompleter(completer);
    }
    const auto chips = tool_->chips();
    for (std::size_t i = 0; i < chips.size(); ++i) {
        const QString text = chips[i].value.isEmpty() ? chips[i].role + tr(": …")
                                                      : chips[i].role + QStringLiteral(": ") + chips[i].value;
        chipTexts_ << text;
        auto* chip = new QPushButton(text);
        chip->setObjectName(QStringLiteral("chip"));
        chip->setFocusPolicy(Qt::NoFocus);
        chip->setToolTip(tr("%1. Click to pick this again").arg(text));
        connect(chip, &QPushButton::clicked, this, [this, i] {
            if (tool_ != nullptr) tool_->repick(i);
        });
        chipLayout_->addWidget(chip);
    }
    fitParts();
}

namespace {

/// The most that each may take so that all have room; who wants less leaves the rest to the others.
int fairShare(std::vector<int> wanted, int room) {
    std::sort(wanted.begin(), wanted.end());
    int left = static_cast<int>(wanted.size());
    for (const int w : wanted) {
        if (w * left > room) return std::max(room, 0) / left;
        room -= w;
        --left;
    }
    return wanted.empty() ? 0 : wanted.back();
}

}  // namespace

void PromptLine::fitParts() {
    // The sentence is never cut: chips give way first, then the entry, then it takes a second line.
    const auto wide = [](const QWidget* w, const QString& text) {
        return w->fontMetrics().horizontalAdvance(text) + 4;
    };
    const int gaps = 8 * 4 + 20;
    int left =
        width() - gaps - wide(prompt_, prompt_->text()) - (tool_ != nullptr ? title_->sizeHint().width() : 0);
    const bool entered = !entry_->isHidden();
    const int chips = static_cast<int>(chipTexts_.size());
    std::vector<int> wanted;
    for (const QString& text : chipTexts_) wanted.push_back(wide(chips_, text) + 27);
    const int forChips = left - (entered ? narrowestEntry : 0);
    // The last give way as a whole before the others get too narrow to read.
    int shown = chips;
    while (shown > 1 && fairShare(wanted, forChips) - 27 < narrowestChip &&
           fairShare(wanted, forChips) < *std::max_element(wanted.begin(), wanted.end())) {
        wanted.pop_back();
        --shown;
    }
    const int each = fairShare(wanted, forChips);
    int taken = 0;
    for (const int w : wanted) taken += std::min(w, each);
    const bool whole = shown > 0 && each == *std::max_element(wanted.begin(), wanted.end());
    chips_->setVisible(whole || (shown > 0 && each - 27 >= narrowestChip));
    for (int i = 0; i < chipLayout_->count() && i < chips; ++i) {
        auto* chip = qobject_cast<QPushButton*>(chipLayout_->itemAt(i)->widget());
        if (chip == nullptr) continue;
        chip->setVisible(i < shown);
        if (i < shown)
            chip->setText(wanted[static_cast<std::size_t>(i)] <= each
                              ? chipTexts_[i]
                              : chip->fontMetrics().elidedText(chipTexts_[i], Qt::ElideMiddle, each - 27));
    }
    if (!chips_->isHidden()) left -= taken;
    entry_->setFixedWidth(std::clamp(left, narrowestEntry, widestEntry));
    prompt_->setWordWrap(left < (entered ? narrowestEntry : 0));
}

void PromptLine::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    fitParts();
}

void PromptLine::forgetError() {
    if (!isError_) return;
    messageAge_.invalidate();
    refresh();
}

void PromptLine::setIdle(const QString& text) {
    idle_ = text;
    refresh();
}

void PromptLine::showMessage(const QString& text, bool isError) {
    prompt_->setText((isError ? QStringLiteral("⚠ ") : QStringLiteral("✓ ")) + text);
    prompt_->setStyleSheet(
        QStringLiteral("color: %1; font-weight: 600;").arg(isError ? "#A5313C" : "#2C6E68"));
    isError_ = isError;
    messageAge_.start();
    fitParts();
    QTimer::singleShot(isError ? 8000 : 4000, this, [this, shown = prompt_->text()] {
        if (prompt_->text() != shown) return;
        messageAge_.invalidate();
        refresh();
    });
}

void PromptLine::startEntry(const QString& text) {
    if (!entry_->isVisible()) return;
    entry_->setFocus();
    entry_->setText(text);
}

void PromptLine::enter() {
    const QString text = entry_->text();
    stepTaken();
    if (text.trimmed().isEmpty()) {
        Q_EMIT completed();
        return;
    }
    if (tool_ != nullptr && tool_->enter(text)) entry_->clear();
}

bool PromptLine::eventFilter(QObject* watched, QEvent* event) {
    if (watched == entry_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Return || key == Qt::Key_Enter) {
            enter();
            return true;
        }
        if (key == Qt::Key_Escape) {
            Q_EMIT left();
            return true;
        }
        if (key == Qt::Key_Backspace && entry_->text().isEmpty() && tool_ != nullptr) {
            tool_->stepBack();
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

}  // namespace erdwerk::app

#include "moc_prompt_line.cpp"
