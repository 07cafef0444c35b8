#include "app/window/stage_bar.h"

#include <QHBoxLayout>

#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "core/check/finding.h"
#include "core/objects/points.h"

namespace erdwerk::app {

namespace {

/// Never longer than four figures: "9999", "12 k", "3.4 M".
QString shortCount(std::size_t n) {
    if (n < 10000) return QString::number(n);
    if (n < 1000000) return QObject::tr("%1 k").arg(n / 1000);
    return QObject::tr("%1 M").arg(static_cast<double>(n) / 1e6, 0, 'f', 1);
}

constexpr std::array<Stage, 5> stages{Stage::Field, Stage::Ground, Stage::Shape, Stage::Route, Stage::Record};
}  // namespace

StageBar::StageBar(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName(QStringLiteral("stageBar"));
    setAttribute(Qt::WA_StyledBackground);
    setStyleSheet(QStringLiteral(
        "#stageBar { background: #FFFFFF; border-bottom: 1px solid #D9D3C7; }"
        "#stageBar QPushButton { border: none; border-radius: 0; padding: 8px 8px; background: transparent; "
        "border-bottom: 3px solid transparent; }"
        "#stageBar QPushButton:hover { background: #F8F6F1; } #stageBar QPushButton:focus { background: "
        "#F1EEE7; }"
        "#stageBar QPushButton:checked { border-bottom: 3px solid #B9502B; font-weight: 600; }"));
    auto* layout = new QHBoxLayout(this);
    layout->setContentsMargins(6, 0, 10, 0);
    layout->setSpacing(0);
    for (std::size_t i = 0; i < stages.size(); ++i) {
        buttons_[i] = new QPushButton(stageName(stages[i]));
        buttons_[i]->setCheckable(true);
        buttons_[i]->setObjectName(QStringLiteral("stage%1").arg(i));
        connect(buttons_[i], &QPushButton::clicked, this, [this, i] { setStage(stages[i]); });
        layout->addWidget(buttons_[i]);
        if (i + 1 < stages.size()) {
            auto* arrow = new QLabel(QStringLiteral("›"));
            arrow->setStyleSheet(QStringLiteral("color: #B5AD9E;"));
            layout->addWidget(arrow);
        }
    }
    reserveWidths();
    layout->addStretch(1);
    working_ = new QProgressBar;
    working_->setRange(0, 0);
    working_->setFixedSize(44, 12);
    working_->setTextVisible(false);
    working_->setAccessibleName(tr("Working"));
    stop_ = new QPushButton(tr("stop"));
    stop_->setStyleSheet(QStringLiteral("padding: 8px 4px;"));
    connect(stop_, &QPushButton::clicked, &session_, &Session::cancelWork);
    findings_ = new QPushButton;
    findings_->setObjectName(QStringLiteral("findingsBadge"));
    connect(findings_, &QPushButton::clicked, this, &StageBar::findingsPressed);
    layout->addWidget(working_);
    layout->addWidget(stop_);
    layout->addWidget(findings_);
    // Their room is kept, so that nothing moves when work begins.
    for (QWidget* w : {static_cast<QWidget*>(working_), static_cast<QWidget*>(stop_)}) {
        QSizePolicy policy = w->sizePolicy();
        policy.setRetainSizeWhenHidden(true);
        w->setSizePolicy(policy);
        w->hide();
    }
    connect(&session_, &Session::documentChanged, this, &StageBar::refresh);
    connect(&session_, &Session::resultsChanged, this, &StageBar::refresh);
    connect(&timer_, &QTimer::timeout, this, &StageBar::showWork);
    timer_.start(120);
    setStage(Stage::Field);
    refresh();
}

/// Work that is done in a blink is not announced.
void StageBar::showWork() {
    const QString edit = session_.editing();
    busyFor_ = session_.isWorking() || !edit.isEmpty() ? busyFor_ + 1 : 0;
    working_->setVisible(busyFor_ > 2);
    const int done = session_.workDone();
    working_->setRange(0, done > 0 ? 100 : 0);
    working_->setValue(done);
    const QString what = edit.isEmpty() ? tr("Working out the results") : edit;
    working_->setToolTip(done > 0 ? tr("%1: %2 %").arg(what).arg(done) : what);
    stop_->setToolTip(edit.isEmpty() ? tr("Stops working out the results; the next edit starts it again")
                                     : tr("Stops: %1").arg(edit));
    stop_->setVisible(busyFor_ > 2);
}

/// As wide as the text of a large project, so that nothing moves when counts change.
void StageBar::reserveWidths() {
    const std::array<QString, 5> widest{tr("9999 points"), tr("99 surfaces"), tr("9999 lines"),
                                        QStringLiteral("99"), tr("99 parcels")};
    const QFontMetrics metrics(theme::font(13, true));
    for (std::size_t i = 0; i < stages.size(); ++i)
        buttons_[i]->setFixedWidth(
            metrics.horizontalAdvance(stageName(stages[i]) + QStringLiteral("   ") + widest[i]) + 20);
}

void StageBar::setStage(Stage stage) {
    stage_ = stage;
    for (std::size_t i = 0; i < stages.size(); ++i) buttons_[i]->setChecked(stages[i] == stage);
    Q_EMIT stageChanged(stage);
}

void StageBar::refresh() {
    const auto& d = session_.document();
    std::size_t points = 0;
    for (const ObjectId id : d.all<objects::Points>()) points += d.get<objects::Points>(id)->set.size();
    const auto text = [](Stage stage, std::size_t n, const QString& one, const QString& many) {
        return n == 0
                   ? stageName(stage)
                   : QStringLiteral("%1   %2 %3").arg(stageName(stage), shortCount(n), n == 1 ? one : many);
    };
    buttons_[0]->setText(text(Stage::Field, points, tr("point"), tr("points")));
    buttons_[1]->setText(
        text(Stage::Ground, d.all<objects::Surface>().size(), tr("surface"), tr("surfaces")));
    buttons_[2]->setText(text(Stage::Shape, d.all<objects::Line>().size(), tr("line"), tr("lines")));
    const std::size_t alignments = d.all<objects::Alignment>().size();
    buttons_[3]->setText(text(Stage::Route, alignments, {}, {}).trimmed());
    buttons_[3]->setToolTip(alignments == 1 ? tr("1 alignment") : tr("%1 alignments").arg(alignments));
    const std::size_t parcels = d.all<objects::Parcel>().size();
    const std::size_t sheets = d.all<objects::Sheet>().size();
    buttons_[4]->setText(sheets > 0 ? text(Stage::Record, sheets, tr("sheet"), tr("sheets"))
                                    : text(Stage::Record, parcels, tr("parcel"), tr("parcels")));
    buttons_[4]->setToolTip(tr("%1 parcels, %2 sheets").arg(parcels).arg(sheets));
    const auto& findings = session_.snapshot()->findings;
    const bool must = !findings.empty() && findings.front().severity == check::Severity::MustFix;
    findings_->setText(
        findings.empty()
            ? tr("✓ no findings")
            : (must ? QStringLiteral("● ") : QStringLiteral("▲ ")) +
                  (findings.size() == 1 ? tr("1 finding") : tr("%1 findings").arg(findings.size())));
    findings_->setStyleSheet(QStringLiteral("color: %1; font-weight: 600;")
                                 .arg(findings.empty() ? "#2C6E68" : (must ? "#A5313C" : "#8A6210")));
}

}  // namespace erdwerk::app

#include "moc_stage_bar.cpp"
