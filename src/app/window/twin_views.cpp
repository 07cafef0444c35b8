#include "app/window/twin_views.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include "app/kinds/all_kinds.h"

namespace erdwerk::app {

TwinViews::TwinViews(Session& session, QWidget* parent) : QSplitter(Qt::Horizontal, parent) {
    plan_ = new PlanView(session, planLayers());
    scene_ = new SceneView(session, sceneLayers());
    secondBox_ = new QWidget;
    auto* column = new QVBoxLayout(secondBox_);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    second_ = new PlanView(session, planLayers());
    second_->setObjectName(QStringLiteral("secondPlan"));
    second_->setAccessibleName(tr("Second plan"));
    auto* bar = new QWidget;
    auto* row = new QHBoxLayout(bar);
    row->setContentsMargins(10, 3, 10, 3);
    fade_ = new QSlider(Qt::Horizontal);
    fade_->setObjectName(QStringLiteral("fade"));
    fade_->setAccessibleName(tr("Surface faded over the source"));
    fade_->setRange(0, 100);
    row->addWidget(new QLabel(tr("source")));
    row->addWidget(fade_, 1);
    row->addWidget(new QLabel(tr("surface")));
    column->addWidget(second_, 1);
    column->addWidget(bar);
    addWidget(plan_);
    addWidget(scene_);
    addWidget(secondBox_);
    setSizes({560, 300, 300});
    setChildrenCollapsible(false);
    scene_->hide();
    secondBox_->hide();
    second_->setFade(0.0);
    connect(fade_, &QSlider::valueChanged, this, [this](int v) { second_->setFade(v / 100.0); });
    connect(plan_, &PlanView::viewChanged, this, [this] { follow(plan_); });
    connect(second_, &PlanView::viewChanged, this, [this] { follow(second_); });
    connect(scene_, &SceneView::moved, this, [this] { follow(scene_); });
}

void TwinViews::setTwin(Twin twin) {
    twin_ = twin;
    scene_->setVisible(twin == Twin::Scene);
    secondBox_->setVisible(twin == Twin::Plan);
    if (twin == Twin::Plan) setSizes({width() / 2, 0, width() / 2});
    // Beside a second plan the first shows the surfaces alone.
    plan_->setFade(twin == Twin::Plan ? std::optional(1.0) : std::nullopt);
    if (twin != Twin::None && inStep_)
        QMetaObject::invokeMethod(
            this, [this] { follow(plan_); }, Qt::QueuedConnection);
}

void TwinViews::setInStep(bool on) {
    inStep_ = on;
    if (on) follow(plan_);
}

void TwinViews::follow(QWidget* moved) {
    if (!inStep_ || following_ || twin_ == Twin::None) return;
    following_ = true;
    if (moved == scene_) {
        const auto view = scene_->planView();
        plan_->setView(view.centre, view.scale);
    } else {
        const auto& view = moved == second_ ? second_->view() : plan_->view();
        if (moved == second_) plan_->setView(view.centre, view.scale);
        if (moved == plan_ && twin_ == Twin::Plan) second_->setView(view.centre, view.scale);
        if (moved == plan_ && twin_ == Twin::Scene) scene_->follow(view.centre, view.scale);
    }
    following_ = false;
}

}  // namespace erdwerk::app

#include "moc_twin_views.cpp"
