#include "app/window/start_page.h"

#include <QDateTime>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QLocale>
#include <QPainter>
#include <QPushButton>

#include "app/base/theme.h"

namespace erdwerk::app {

StartPage::StartPage(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("startPage"));
    setAttribute(Qt::WA_StyledBackground);
    setStyleSheet(
        QStringLiteral("#startPage { background: #FAF7F0; } #startPage QPushButton { text-align: left; "
                       "padding: 12px 18px; font-size: 14px; }"));
    auto* outer = new QHBoxLayout(this);
    outer->addStretch(1);
    auto* column = new QVBoxLayout;
    column->setSpacing(8);
    column->addStretch(2);
    auto* title = new QLabel(tr("Erdwerk"));
    title->setFont(theme::font(40, true));
    auto* line =
        new QLabel(tr("Terrain, 3D linework, alignments and parcels – from the field book to the plan."));
    line->setStyleSheet(QStringLiteral("color: #5F6B74; font-size: 14px;"));
    column->addWidget(title);
    column->addWidget(line);
    column->addSpacing(24);
    const auto add = [&](const QString& text, const QString& name, auto signal) {
        auto* button = new QPushButton(text);
        button->setObjectName(name);
        button->setMinimumWidth(460);
        connect(button, &QPushButton::clicked, this, signal);
        column->addWidget(button);
        return button;
    };
    auto* demo =
        add(tr("Open the demo: Quillmoor Observatory"), QStringLiteral("startDemo"), &StartPage::demoPressed);
    demo->setDefault(true);
    add(tr("New project from a survey file…"), QStringLiteral("startSurvey"),
        &StartPage::newFromSurveyPressed);
    add(tr("Open a project…"), QStringLiteral("startOpen"), &StartPage::openPressed);
    add(tr("New empty project"), QStringLiteral("startEmpty"), &StartPage::emptyPressed);
    lost_ = new QVBoxLayout;
    column->addSpacing(12);
    column->addLayout(lost_);
    column->addStretch(3);
    outer->addLayout(column);
    outer->addStretch(1);
}

void StartPage::setLost(const QStringList& journals) {
    while (QLayoutItem* item = lost_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    for (const QString& journal : journals) {
        auto* button = new QPushButton(
            tr("Recover the unnamed project of %1")
                .arg(QLocale().toString(QFileInfo(journal).lastModified(), QLocale::ShortFormat)));
        button->setStyleSheet(QStringLiteral("border-color: #C98F1E;"));
        connect(button, &QPushButton::clicked, this, [this, journal] { Q_EMIT recoverPressed(journal); });
        lost_->addWidget(button);
    }
}

}  // namespace erdwerk::app
