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
    recent_ = new QVBoxLayout;
    recent_->setSpacing(2);
    column->addSpacing(8);
    column->addLayout(recent_);
    lost_ = new QVBoxLayout;
    column->addSpacing(12);
    column->addLayout(lost_);
    column->addStretch(3);
    outer->addLayout(column);
    outer->addStretch(1);
}

namespace {

void clear(QLayout* layout) {
    while (QLayoutItem* item = layout->takeAt(0)) {
        delete item->widget();
        delete item;
    }
}

}  // namespace

void StartPage::setRecent(const QStringList& paths) {
    clear(recent_);
    for (const QString& path : paths.mid(0, 4)) {
        auto* button = new QPushButton(QFileInfo(path).completeBaseName());
        button->setToolTip(path);
        button->setFlat(true);
        button->setStyleSheet(QStringLiteral("padding: 4px 18px; border: none; color: #2C6E68;"));
        connect(button, &QPushButton::clicked, this, [this, path] { Q_EMIT recentPressed(path); });
        recent_->addWidget(button);
    }
}

void StartPage::setLost(const QStringList& journals) {
    constexpr int most = 3;  // the page stays on a small screen
    clear(lost_);
    QStringList newest = journals;
    std::sort(newest.begin(), newest.end(), [](const QString& a, const QString& b) {
        return QFileInfo(a).lastModified() > QFileInfo(b).lastModified();
    });
    for (const QString& journal : newest.mid(0, most)) {
        auto* button = new QPushButton(
            tr("Recover the unnamed project of %1")
                .arg(QLocale().toString(QFileInfo(journal).lastModified(), QLocale::ShortFormat)));
        button->setStyleSheet(QStringLiteral("border-color: #C98F1E;"));
        connect(button, &QPushButton::clicked, this, [this, journal] { Q_EMIT recoverPressed(journal); });
        lost_->addWidget(button);
    }
    if (newest.size() > most)
        lost_->addWidget(new QLabel(
            tr("%n older ones come after these", nullptr, static_cast<int>(newest.size() - most))));
}

}  // namespace erdwerk::app

#include "moc_start_page.cpp"
