#include "app/sheet/sheet_page.h"

#include <QHBoxLayout>
#include <QMenu>
#include <QVBoxLayout>
#include <algorithm>

#include "app/base/theme.h"

namespace erdwerk::app {

SheetPage::SheetPage(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName(QStringLiteral("sheetPage"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* bar = new QWidget;
    auto* row = new QHBoxLayout(bar);
    row->setContentsMargins(8, 4, 8, 4);
    row->setSpacing(6);
    const auto button = [&](const QString& text, const QString& help) {
        auto* b = new QToolButton;
        b->setText(text);
        b->setToolTip(help);
        b->setAccessibleName(help);
        row->addWidget(b);
        return b;
    };
    connect(button(QStringLiteral("‹"), tr("The sheet before")), &QToolButton::clicked, this,
            [this] { step(-1); });
    which_ = new QComboBox;
    which_->setObjectName(QStringLiteral("whichSheet"));
    which_->setAccessibleName(tr("Sheet"));
    which_->setMinimumWidth(180);
    row->addWidget(which_);
    connect(button(QStringLiteral("›"), tr("The next sheet")), &QToolButton::clicked, this,
            [this] { step(1); });
    add_ = button(tr("Add a frame ▾"), tr("Plan, profile, table …: another frame on this sheet"));
    add_->setObjectName(QStringLiteral("addFrame"));
    add_->setPopupMode(QToolButton::InstantPopup);
    add_->setStyleSheet(QStringLiteral("QToolButton::menu-indicator { image: none; }"));
    says_ = new QLabel;
    says_->setObjectName(QStringLiteral("sheetSays"));
    says_->setStyleSheet(QStringLiteral("color: #8A5F0C;"));
    row->addWidget(says_, 1);
    canvas_ = new SheetCanvas(session_);
    connect(button(tr("All of it"), tr("The whole sheet in view")), &QToolButton::clicked, canvas_,
            &SheetCanvas::fit);
    auto* back = button(tr("Back to the plan"), tr("The plan in place of the sheet (Esc)"));
    back->setObjectName(QStringLiteral("backToPlan"));
    connect(back, &QToolButton::clicked, this, &SheetPage::closed);
    column->addWidget(bar);
    column->addWidget(canvas_, 1);
    connect(which_, &QComboBox::activated, this, [this](int i) {
        const ObjectId id{which_->itemData(i).toULongLong()};
        open(id);
        session_.selection().set({{id, std::nullopt}});
    });
    connect(&session_, &Session::documentChanged, this, &SheetPage::refresh);
    connect(canvas_, &SheetCanvas::pictureChanged, this, &SheetPage::tellTexts);
}

void SheetPage::showEvent(QShowEvent*) {
    refresh();
    canvas_->fit();
}

void SheetPage::open(ObjectId sheet) {
    canvas_->setSheet(sheet);
    refresh();
}

void SheetPage::refresh() {
    const auto sheets = session_.document().all<objects::Sheet>();
    // The sheet is gone: another one, or the plan.
    if (isVisible() && std::find(sheets.begin(), sheets.end(), canvas_->sheet()) == sheets.end()) {
        if (sheets.empty()) {
            Q_EMIT closed();
            return;
        }
        canvas_->setSheet(sheets.front());
    }
    which_->clear();
    for (const ObjectId id : sheets) {
        which_->addItem(QString::fromStdString(session_.document().nameOf(id)),
                        QVariant::fromValue<qulonglong>(id.value));
        if (id == canvas_->sheet()) which_->setCurrentIndex(which_->count() - 1);
    }
}

void SheetPage::step(int by) {
    const int count = which_->count();
    if (count == 0) return;
    which_->setCurrentIndex((which_->currentIndex() + by + count) % count);
    const ObjectId id{which_->currentData().toULongLong()};
    open(id);
    session_.selection().set({{id, std::nullopt}});
}

void SheetPage::tellTexts() {
    const auto& shown = canvas_->shown();
    QStringList words;
    if (!shown.noFonts.isEmpty())
        words << tr("Not installed: %1; Inter stands in").arg(shown.noFonts.join(QStringLiteral(", ")));
    if (shown.texts.without > 0)
        words << tr("%n texts have no room at this scale", nullptr, static_cast<int>(shown.texts.without));
    says_->setText(words.join(QStringLiteral(" · ")));
}

}  // namespace erdwerk::app

#include "moc_sheet_page.cpp"
