#include "app/bench/reading_pane.h"

#include <QHeaderView>
#include <QSplitter>
#include <QVBoxLayout>
#include <utility>

#include "app/base/theme.h"
#include "app/bench/table_clipboard.h"
#include "core/objects/reading.h"
#include "core/operations/descriptions.h"

namespace erdwerk::app {

namespace {

QTableWidget* plainTable(Session& session, const QStringList& headings, const QString& name) {
    auto* table = new QTableWidget(0, static_cast<int>(headings.size()));
    table->setAccessibleName(name);
    table->setHorizontalHeaderLabels(headings);
    table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table->setSelectionBehavior(QAbstractItemView::SelectRows);
    table->verticalHeader()->hide();
    table->setWordWrap(true);
    table->verticalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table->horizontalHeader()->setStretchLastSection(true);
    new TableClipboard(*table, session);
    return table;
}

/// Where each code point begins in a text of UTF-16, and its end.
std::vector<int> offsets(const QString& text) {
    std::vector<int> out;
    for (int i = 0; i < text.size(); ++i)
        if (!text[i].isLowSurrogate()) out.push_back(i);
    out.push_back(static_cast<int>(text.size()));
    return out;
}

}  // namespace

ReadingPane::ReadingPane(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(2);
    sum_ = new QLabel;
    sum_->setAccessibleName(tr("What was read"));
    layout->addWidget(sum_);
    auto* split = new QSplitter;
    text_ = new QPlainTextEdit;
    text_->setObjectName(QStringLiteral("readText"));
    text_->setAccessibleName(tr("Description that is read back"));
    text_->setPlaceholderText(tr("Paste or type a description here"));
    text_->installEventFilter(this);
    courses_ = plainTable(session_, {tr("Course"), tr("As read")}, tr("Courses as read"));
    courses_->setObjectName(QStringLiteral("readCourses"));
    differences_ = plainTable(session_, {tr("What does not agree")}, tr("Differences"));
    differences_->setObjectName(QStringLiteral("readDifferences"));
    split->addWidget(text_);
    split->addWidget(courses_);
    split->addWidget(differences_);
    split->setSizes({400, 360, 460});
    layout->addWidget(split, 1);
    pause_.setSingleShot(true);
    pause_.setInterval(900);
    connect(&pause_, &QTimer::timeout, this, &ReadingPane::takeTyped);
    connect(text_, &QPlainTextEdit::textChanged, this, [this] {
        if (text_->toPlainText() != shown_) pause_.start();
    });
    connect(courses_, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (row >= 0 && !filling_) showCourse(static_cast<std::size_t>(row));
    });
    connect(differences_, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (row < 0 || filling_ || static_cast<std::size_t>(row) >= places_.size()) return;
        showWords(places_[static_cast<std::size_t>(row)]);
    });
}

void ReadingPane::list(ObjectId reading) {
    // What was typed into the one before is its own.
    if (reading != reading_ && pause_.isActive()) takeTyped();
    const bool other = std::exchange(reading_, reading) != reading;
    const auto* of = session_.derived().document.get<objects::Reading>(reading);
    const auto* result = derive::Derived::in(session_.derived().readings, reading);
    if (of == nullptr || result == nullptr) return;
    const QString now = QString::fromStdString(of->text);
    if (other || !pause_.isActive()) {
        pause_.stop();
        shown_ = now;
        if (text_->toPlainText() != now) text_->setPlainText(now);
        shown_ = text_->toPlainText();
    }
    filling_ = true;
    fillCourses(*result);
    fillDifferences(*result);
    filling_ = false;
    mark(*result);
    if (!result->problem.empty()) return sum_->setText(QString::fromStdString(result->problem));
    const auto& g = result->shape.geometry;
    sum_->setText(tr("%1 courses in %2, open by %3 %4; %5")
                      .arg(result->read.courses.size())
                      .arg(QString::fromUtf8(parcel::unitName(result->read.unit).data()),
                           QString::fromStdString(formatFixed(g.closure.distance, 3)),
                           result->shape.gapExplained() ? tr("(rounding)") : tr("(more than rounding)"),
                           result->compared ? tr("compared with %1")
                                                  .arg(QString::fromStdString(
                                                      session_.derived().document.nameOf(of->parcel)))
                                            : tr("compared with nothing: choose a parcel in its facts")));
}

void ReadingPane::fillCourses(const derive::ReadingResult& result) {
    courses_->setRowCount(static_cast<int>(result.read.courses.size()));
    for (std::size_t i = 0; i < result.read.courses.size(); ++i) {
        courses_->setItem(static_cast<int>(i), 0, new QTableWidgetItem(QString::number(i + 1)));
        courses_->setItem(static_cast<int>(i), 1,
                          new QTableWidgetItem(QString::fromStdString(
                              operations::courseWords(result.read.courses[i], result.drawn[i]))));
    }
    courses_->resizeColumnToContents(0);
}

void ReadingPane::fillDifferences(const derive::ReadingResult& result) {
    const auto& text = session_.derived().document.get<objects::Reading>(reading_)->text;
    places_.clear();
    QStringList lines;
    for (const auto& d : result.differences) {
        lines << QString::fromStdString(operations::differenceWords(session_.derived(), reading_, d));
        places_.push_back(d.words);
    }
    for (const auto& range : result.read.unread) {
        lines << tr("could not be read: \"%1\"").arg(QString::fromStdString(parcel::cutOut(text, range)));
        places_.push_back(range);
    }
    differences_->setRowCount(static_cast<int>(lines.size()));
    for (int i = 0; i < lines.size(); ++i) {
        auto* item = new QTableWidgetItem(lines[i]);
        item->setToolTip(lines[i]);
        item->setForeground(i < static_cast<int>(result.differences.size()) ? theme::ink : theme::madder);
        differences_->setItem(i, 0, item);
    }
}

QTextCursor ReadingPane::cursorAt(parcel::TextRange words) const {
    const auto at = offsets(text_->toPlainText());
    QTextCursor cursor(text_->document());
    const auto last = at.size() - 1;
    cursor.setPosition(at[std::min(words.from, last)]);
    cursor.setPosition(at[std::min(words.to, last)], QTextCursor::KeepAnchor);
    return cursor;
}

void ReadingPane::mark(const derive::ReadingResult& result) {
    QList<QTextEdit::ExtraSelection> marks;
    // While somebody types, the words are somewhere else.
    if (text_->toPlainText() != shown_) return;
    const auto add = [&](parcel::TextRange range, const QColor& ground, const QColor& line) {
        QTextEdit::ExtraSelection mark;
        mark.cursor = cursorAt(range);
        if (ground.isValid()) mark.format.setBackground(ground);
        if (line.isValid()) {
            mark.format.setUnderlineStyle(QTextCharFormat::WaveUnderline);
            mark.format.setUnderlineColor(line);
        }
        marks << mark;
    };
    QColor soft = theme::spruce;
    soft.setAlpha(28);
    for (const auto& c : result.read.courses) add(c.words, soft, {});
    QColor look = theme::ochre;
    look.setAlpha(90);
    for (const auto& d : result.differences) add(d.words, look, theme::ochre);
    for (const auto& range : result.read.unread) add(range, {}, theme::madder);
    text_->setExtraSelections(marks);
}

void ReadingPane::showWords(parcel::TextRange words) {
    if (text_->toPlainText() != shown_) return;
    text_->setTextCursor(cursorAt(words));
    text_->ensureCursorVisible();
}

void ReadingPane::showCourse(std::size_t course) {
    const auto* result = derive::Derived::in(session_.derived().readings, reading_);
    if (result == nullptr || course >= result->read.courses.size()) return;
    showWords(result->read.courses[course].words);
    if (const auto middle = operations::middleOfCourse(*result, course))
        Q_EMIT session_.selection().goToPlace(*middle);
}

void ReadingPane::takeTyped() {
    pause_.stop();
    const QString typed = text_->toPlainText();
    if (typed == shown_) return;
    shown_ = typed;
    session_.edit(tr("Change the text that is read back"),
                  operations::changeReading(reading_, typed.toStdString()));
}

bool ReadingPane::eventFilter(QObject* watched, QEvent* event) {
    if (watched == text_ && event->type() == QEvent::FocusOut) takeTyped();
    return QWidget::eventFilter(watched, event);
}

}  // namespace erdwerk::app

#include "moc_reading_pane.cpp"
