#pragma once
// The plan, and beside it a twin in step with it: the 3D view, or a second plan that shows the sources with
// the surfaces faded over them.

#include <QSlider>
#include <QSplitter>

#include "app/base/snapshot.h"
#include "app/plan/plan_view.h"
#include "app/scene/scene_view.h"

namespace erdwerk::app {

class TwinViews : public QSplitter {
    Q_OBJECT
public:
    enum class Twin { None, Scene, Plan };

    explicit TwinViews(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] PlanView* plan() { return plan_; }
    [[nodiscard]] SceneView* scene() { return scene_; }
    [[nodiscard]] PlanView* second() { return second_; }
    [[nodiscard]] QSlider* fade() { return fade_; }
    void setTwin(Twin twin);
    [[nodiscard]] Twin twin() const { return twin_; }
    /// In step: both show the same place at the same scale.
    void setInStep(bool on);
    [[nodiscard]] bool inStep() const { return inStep_; }

private:
    void follow(QWidget* moved);

    PlanView* plan_;
    SceneView* scene_;
    QWidget* secondBox_;
    PlanView* second_;
    QSlider* fade_;
    Twin twin_ = Twin::None;
    bool inStep_ = true;
    bool following_ = false;
};

}  // namespace erdwerk::app
