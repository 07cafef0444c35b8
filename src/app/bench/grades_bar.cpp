#include "app/bench/grades_bar.h"

#include <QHBoxLayout>
#include <QPushButton>

#include "app/base/theme.h"
#include "app/plan/tool.h"
#include "core/operations/shape.h"

namespace erdwerk::app {

GradesBar::GradesBar(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(6, 2, 6, 2);
    layout->setSpacing(4);
    count_ = new QLabel;
    entry_ = new QLineEdit;
    entry_->setObjectName(QStringLiteral("gradesForAll"));
    entry_->setAccessibleName(tr("A rule for all selected points"));
    entry_->setPlaceholderText(tr("for all: 2%  ·  101.25  ·  lift 0.15"));
    entry_->setMinimumWidth(60);
    layout->addWidget(count_);
    layout->addWidget(entry_, 1);
    connect(entry_, &QLineEdit::returnPressed, this, &GradesBar::typed);
    for (const Deed& deed : deeds()) {
        auto* button = new QPushButton(deed.text);
        button->setObjectName(QString::fromLatin1(deed.name));
        button->setToolTip(deed.tip);
        button->setStyleSheet(QStringLiteral("padding: 2px 6px;"));
        layout->addWidget(button);
        // By its name: what it does depends on the points then.
        connect(button, &QPushButton::clicked, this, [this, name = deed.name] {
            for (const Deed& now : deeds())
                if (now.name == name) run(now.text, now.edit());
        });
    }
    hide();
}

std::vector<GradesBar::Deed> GradesBar::deeds() const {
    std::vector<operations::LinePart> parts;
    for (const std::size_t i : points_) parts.emplace_back(line_, i);
    const std::size_t last = points_.empty() ? 0 : points_.back();
    const auto seen = session_.results();
    return {
        {"oneGrade", tr("One grade"), tr("Between the first and the last selected point"), 2,
         [=, this] { return operations::oneGrade(line_, points_); }},
        {"interpolate", tr("Interpolate"), tr("Straight between the controls beside them"), 1,
         [=] { return operations::interpolate(parts); }},
        {"carryOn", tr("Carry on"), tr("The grade that leads to the last of them goes on to the end"), 1,
         [=, this] { return operations::carryGradeOn(seen, line_, last); }},
        {"freeze", tr("Freeze"), tr("Their rules become the heights they give now"), 1,
         [=] { return operations::freeze(seen, parts); }},
        {"free", tr("Free"), tr("Takes their heights away"), 1,
         [=] { return operations::freeHeights(parts); }},
        {"deletePoints", tr("Delete"), tr("Takes these points out of the line"), 1,
         [=, this] { return operations::removePoints(line_, points_); }},
    };
}

void GradesBar::setPoints(ObjectId line, std::vector<std::size_t> points) {
    line_ = line;
    points_ = std::move(points);
    count_->setText(tr("%n points", nullptr, static_cast<int>(points_.size())));
    setVisible(points_.size() > 1);
}

void GradesBar::addTo(QMenu& menu) {
    menu.addSeparator();
    for (const Deed& deed : deeds()) {
        auto* action = menu.addAction(deed.text);
        action->setToolTip(deed.tip);
        action->setEnabled(points_.size() >= deed.least);
        connect(action, &QAction::triggered, this,
                [this, text = deed.text, edit = deed.edit()] { run(text, edit); });
    }
}

void GradesBar::run(const QString& text, const document::Edit& edit) {
    session_.edit(tr("%1, %n points: %2", nullptr, static_cast<int>(points_.size()))
                      .arg(QString::fromStdString(session_.document().nameOf(line_)), text.toLower()),
                  edit);
}

void GradesBar::typed() {
    const QString text = entry_->text().trimmed();
    if (text.isEmpty()) return;
    const QString word = tr("lift") + QLatin1Char(' ');
    document::Edit edit;
    if (text.startsWith(word, Qt::CaseInsensitive)) {
        const auto amount = typedFigure(text.mid(word.size()));
        if (!amount) {
            Q_EMIT session_.message(tr("Type lift and a figure, like lift 0.15"), true);
            return;
        }
        std::vector<operations::LinePart> parts;
        for (const std::size_t i : points_) parts.emplace_back(line_, i);
        edit = operations::lift(session_.results(), parts, *amount);
    } else {
        std::vector<std::pair<ObjectId, std::size_t>> points;
        for (const std::size_t i : points_) points.emplace_back(line_, i);
        edit = operations::setTypedRules(points, text.toStdString());
    }
    const auto before = session_.history().position();
    run(text, edit);
    if (session_.history().position() != before) entry_->clear();
}

}  // namespace erdwerk::app

#include "moc_grades_bar.cpp"
