#include "app/bench/parcel_pane.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QMimeData>
#include <QSplitter>
#include <QVBoxLayout>

#include "app/base/text_document.h"
#include "app/base/theme.h"
#include "app/bench/table_clipboard.h"
#include "core/base/id.h"
#include "core/linework/line3d.h"
#include "core/objects/parcel.h"
#include "core/objects/wording.h"
#include "core/operations/descriptions.h"

namespace erdwerk::app {

namespace {

enum Column { Name, Direction, Distance, Along, To, Radius, Delta, ArcLength, Columns };

QString sentenceWord(std::string_view key) {
    static const std::vector<std::pair<std::string_view, QString>> words{
        {"opening", ParcelPane::tr("Opening")},
        {"commence", ParcelPane::tr("Commencing")},
        {"beginning", ParcelPane::tr("Beginning")},
        {"line", ParcelPane::tr("Straight")},
        {"curveTangent", ParcelPane::tr("Tangent curve")},
        {"curveNonTangent", ParcelPane::tr("Curve not tangent")},
        {"along", ParcelPane::tr("Along")},
        {"leaving", ParcelPane::tr("Leaving")},
        {"to", ParcelPane::tr("To")},
        {"listOpening", ParcelPane::tr("Before a list")},
        {"closing", ParcelPane::tr("Closing")},
        {"area", ParcelPane::tr("Area")}};
    for (const auto& [known, word] : words)
        if (known == key) return word;
    return {};
}

/// What a typed cell does.
std::optional<document::Edit> cellEdit(ObjectId parcel, const QModelIndex& cell, const QString& text) {
    const auto course = static_cast<std::size_t>(cell.row());
    const std::string name = text.trimmed().toStdString();
    if (cell.column() == Along) return operations::nameAdjoiner(parcel, course, name);
    if (cell.column() == To) return operations::nameThing(parcel, course, name);
    return std::nullopt;
}

void flat(QPushButton& button, const QString& help) {
    button.setStyleSheet(QStringLiteral("padding: 1px 8px;"));
    button.setToolTip(help);
}

}  // namespace

ParcelPane::ParcelPane(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* split = new QSplitter;
    courses_ = new QTableWidget(0, Columns);
    courses_->setObjectName(QStringLiteral("courseTable"));
    courses_->setAccessibleName(tr("Courses"));
    new TableClipboard(*courses_, session_, [this](const QModelIndex& cell, const QString& text) {
        return cellEdit(parcel_, cell, text);
    });
    courses_->setHorizontalHeaderLabels({tr("Course"), tr("Bearing"), tr("Distance"), tr("Runs along"),
                                         tr("Runs to"), tr("Radius"), tr("Delta"), tr("Arc length")});
    courses_->verticalHeader()->hide();
    courses_->verticalHeader()->setDefaultSectionSize(22);
    courses_->horizontalHeader()->setStretchLastSection(true);
    connect(courses_, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* item) {
        if (filling_) return;
        const auto edit =
            cellEdit(parcel_, courses_->model()->index(item->row(), item->column()), item->text());
        if (edit) session_.edit(tr("Name what a course runs along or to"), *edit);
    });
    split->addWidget(courses_);
    split->addWidget(buildText());
    split->addWidget(wording_ = buildWording());
    split->setSizes({480, 420, 420});
    wording_->hide();
    layout->addWidget(split);
}

QWidget* ParcelPane::buildText() {
    auto* pane = new QWidget;
    auto* layout = new QVBoxLayout(pane);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(2);
    auto* bar = new QHBoxLayout;
    closure_ = new QLabel;
    closure_->setMinimumWidth(40);
    closure_->setAccessibleName(tr("Closure"));
    auto* copy = new QPushButton(tr("Copy"));
    flat(*copy, tr("The description to the clipboard, as text and as rich text"));
    connect(copy, &QPushButton::clicked, this, &ParcelPane::copyText);
    auto* wording = new QPushButton(tr("Wording"));
    flat(*wording, tr("The sentences that it is written with"));
    wording->setObjectName(QStringLiteral("showWording"));
    wording->setCheckable(true);
    // Beside the text, in place of the courses.
    connect(wording, &QPushButton::toggled, this, [this](bool on) {
        wording_->setVisible(on);
        courses_->setVisible(!on);
    });
    bar->addWidget(closure_, 1);
    bar->addWidget(copy);
    bar->addWidget(wording);
    layout->addLayout(bar);
    text_ = new QPlainTextEdit;
    text_->setAccessibleName(tr("Description"));
    text_->setToolTip(tr("A passage that is changed here stays so and is marked; Ctrl+Enter takes it"));
    text_->installEventFilter(this);
    layout->addWidget(text_, 1);
    return pane;
}

QWidget* ParcelPane::buildWording() {
    auto* pane = new QWidget;
    auto* layout = new QVBoxLayout(pane);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(2);
    own_ = new QPushButton(tr("Change these sentences"));
    flat(*own_, tr("A wording of the project, for this parcel and others"));
    own_->setObjectName(QStringLiteral("ownWording"));
    connect(own_, &QPushButton::clicked, this, &ParcelPane::ownWording);
    layout->addWidget(own_);
    sentences_ = new QTableWidget(0, 2);
    sentences_->setObjectName(QStringLiteral("sentences"));
    sentences_->setAccessibleName(tr("Wording"));
    sentences_->setHorizontalHeaderLabels({tr("For"), tr("Sentence, fields in braces")});
    sentences_->setWordWrap(false);
    sentences_->verticalHeader()->hide();
    sentences_->verticalHeader()->setDefaultSectionSize(22);
    sentences_->horizontalHeader()->setStretchLastSection(true);
    connect(sentences_, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* item) {
        const auto* parcel = session_.document().get<objects::Parcel>(parcel_);
        if (filling_ || parcel == nullptr || item->column() != 1) return;
        const auto& key = parcel::sentenceKeys()[static_cast<std::size_t>(item->row())];
        if (!session_.edit(tr("Change a sentence"),
                           operations::changeSentence(parcel->wording, key.key, item->text().toStdString())))
            fillWording();
    });
    layout->addWidget(sentences_, 1);
    return pane;
}

void ParcelPane::list(ObjectId parcel) {
    const bool other = std::exchange(parcel_, parcel) != parcel;
    const auto* result = derive::Derived::in(session_.derived().parcels, parcel);
    if (result == nullptr) return;
    filling_ = true;
    fillCourses(*result);
    // What somebody is typing stays.
    const bool typing = !other && text_->hasFocus() && text_->toPlainText() != shown_;
    if (!typing) fillText(*result);
    fillWording();
    filling_ = false;
}

void ParcelPane::fillCourses(const derive::ParcelResult& result) {
    const auto* of = session_.derived().document.get<objects::Parcel>(parcel_);
    const auto* line = of == nullptr ? nullptr : derive::Derived::in(session_.derived().lines, of->line);
    const std::size_t sides = line == nullptr ? 0 : line->path.size();
    const auto& rows = result.table;
    courses_->setRowCount(static_cast<int>(rows.size()));
    const auto named = [](const std::vector<objects::Parcel::Named>& names, std::size_t part) {
        for (const auto& n : names)
            if (n.part == part) return QString::fromStdString(n.name);
        return QString();
    };
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const auto& r = rows[i];
        const auto put = [&](int column, const QString& cell) {
            auto* item = new QTableWidgetItem(cell);
            const bool typed = column == Along || column == To;
            if (!typed) item->setFlags(item->flags() & ~Qt::ItemIsEditable);
            if (column == Distance || column > To) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            courses_->setItem(static_cast<int>(i), column, item);
        };
        int next = 0;
        for (const std::string* cell : {&r.name, &r.direction, &r.distance})
            put(next++, QString::fromStdString(*cell));
        put(Along, line == nullptr ? QString() : named(of->adjoiners, of->sideOf(i, sides, line->closed)));
        put(To, line == nullptr ? QString() : named(of->things, of->cornerAfter(i, sides, line->closed)));
        next = Radius;
        for (const std::string* cell : {&r.radius, &r.delta, &r.arcLength})
            put(next++, QString::fromStdString(*cell));
    }
    for (int c = 0; c < Columns - 1; ++c)
        if (c != Along && c != To) courses_->resizeColumnToContents(c);
}

void ParcelPane::fillText(const derive::ParcelResult& result) {
    const auto& display = session_.derived().document.settings().display;
    const auto& g = result.geometry;
    QString closure = g.closure.closes(display.unit)
                          ? tr("closes")
                          : tr("open by %1").arg(QString::fromStdString(formatFixed(g.closure.distance, 4)));
    closure +=
        tr("; as called within %1").arg(QString::fromStdString(formatFixed(result.rounded.distance, 4)));
    if (result.rounded.ratio) closure += tr(", 1 : %1").arg(*result.rounded.ratio, 0, 'f', 0);
    closure_->setText(closure);
    closure_->setToolTip(closure);
    starts_.clear();
    lengths_.clear();
    shown_ = QString::fromStdString(result.description).trimmed();
    QList<QTextEdit::ExtraSelection> marks;
    const int scroll = text_->textCursor().position();
    if (text_->toPlainText() != shown_) text_->setPlainText(shown_);
    int from = 0;
    for (const auto& passage : result.passages) {
        const QString part = QString::fromStdString(passage.part.text);
        const int at = std::max(0, static_cast<int>(shown_.indexOf(part, from)));
        starts_.push_back(at);
        lengths_.push_back(static_cast<int>(part.size()));
        from = at + static_cast<int>(part.size());
        if (passage.instead.empty()) continue;
        QTextEdit::ExtraSelection mark;
        mark.cursor = QTextCursor(text_->document());
        mark.cursor.setPosition(at);
        mark.cursor.setPosition(from, QTextCursor::KeepAnchor);
        mark.format.setUnderlineStyle(passage.stale ? QTextCharFormat::WaveUnderline
                                                    : QTextCharFormat::DashUnderline);
        mark.format.setUnderlineColor(passage.stale ? theme::madder : theme::spruce);
        mark.format.setForeground(passage.stale ? theme::madder : theme::spruce);
        marks << mark;
    }
    text_->setExtraSelections(marks);
    QTextCursor cursor = text_->textCursor();
    cursor.setPosition(std::min(scroll, static_cast<int>(shown_.size())));
    text_->setTextCursor(cursor);
}

void ParcelPane::fillWording() {
    const bool was = std::exchange(filling_, true);
    const auto& document = session_.document();
    const auto* parcel = document.get<objects::Parcel>(parcel_);
    const auto* chosen = parcel == nullptr ? nullptr : document.get<objects::Wording>(parcel->wording);
    const auto& wording =
        chosen == nullptr ? parcel::plainTemplate(document.settings().display.unit) : chosen->wording;
    own_->setVisible(chosen == nullptr);
    const auto keys = parcel::sentenceKeys();
    sentences_->setRowCount(static_cast<int>(keys.size()));
    for (std::size_t i = 0; i < keys.size(); ++i) {
        auto* key = new QTableWidgetItem(sentenceWord(keys[i].key));
        key->setFlags(key->flags() & ~Qt::ItemIsEditable);
        auto* sentence = new QTableWidgetItem(QString::fromStdString(wording.*(keys[i].sentence)));
        sentence->setToolTip(tr("Fields: %1")
                                 .arg(QString::fromUtf8(keys[i].fields.data(),
                                                        static_cast<qsizetype>(keys[i].fields.size()))));
        if (chosen == nullptr) sentence->setFlags(sentence->flags() & ~Qt::ItemIsEditable);
        sentences_->setItem(static_cast<int>(i), 0, key);
        sentences_->setItem(static_cast<int>(i), 1, sentence);
    }
    sentences_->resizeColumnToContents(0);
    filling_ = was;
}

void ParcelPane::ownWording() {
    const auto unit = session_.document().settings().display.unit;
    session_.edit(tr("Own wording"), operations::ownWording(parcel_, parcel::plainTemplate(unit)));
}

bool ParcelPane::takeTyped() {
    const QString typed = text_->toPlainText();
    if (typed == shown_) return true;
    const auto* result = derive::Derived::in(session_.derived().parcels, parcel_);
    int same = 0;
    while (same < typed.size() && same < shown_.size() && typed[same] == shown_[same]) ++same;
    int tail = 0;
    while (tail < typed.size() - same && tail < shown_.size() - same &&
           typed[typed.size() - 1 - tail] == shown_[shown_.size() - 1 - tail])
        ++tail;
    const int changedEnd = static_cast<int>(shown_.size()) - tail;
    for (std::size_t i = 0; result != nullptr && i < starts_.size() && i < result->passages.size(); ++i) {
        const int end = starts_[i] + lengths_[i];
        if (same < starts_[i] || changedEnd > end) continue;
        const int grown = static_cast<int>(typed.size() - shown_.size());
        const QString passage = typed.mid(starts_[i], lengths_[i] + grown);
        shown_ = typed;
        if (session_.edit(tr("Change a passage by hand"),
                          operations::typePassage(parcel_, result->passages[i], passage.toStdString())))
            return true;
        break;
    }
    Q_EMIT session_.message(tr("Change one passage at a time: a course, the beginning, the area; what stands "
                               "between them is fixed"),
                            true);
    shown_.clear();
    if (result != nullptr) fillText(*result);
    return false;
}

void ParcelPane::copyText() {
    takeTyped();
    auto* both = new QMimeData;
    both->setText(shown_);
    both->setHtml(textDocument(shown_)->toHtml());
    QGuiApplication::clipboard()->setMimeData(both);
}

bool ParcelPane::eventFilter(QObject* watched, QEvent* event) {
    if (watched == text_ && event->type() == QEvent::FocusOut) takeTyped();
    if (watched == text_ && event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        const bool enter = key->key() == Qt::Key_Return || key->key() == Qt::Key_Enter;
        if (enter && key->modifiers().testFlag(Qt::ControlModifier)) {
            takeTyped();
            return true;
        }
        if (key->key() == Qt::Key_Escape && text_->toPlainText() != shown_) {
            text_->setPlainText(shown_);
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

}  // namespace erdwerk::app

#include "moc_parcel_pane.cpp"
