#pragma once
// Cut and fill against the height of a pad, with the present height marked.

#include <QWidget>
#include <memory>

#include "app/base/latest_worker.h"
#include "app/base/session.h"
#include "core/operations/earthworks.h"

namespace erdwerk::app {

class BalanceCurve : public QWidget {
    Q_OBJECT
public:
    /// Works out the curve in the background and shows it when it is there.
    BalanceCurve(Session& session, ObjectId earthwork, QWidget* parent = nullptr);
    ~BalanceCurve() override;
    [[nodiscard]] const std::vector<earthwork::BalancePoint>& curve() const { return curve_; }
    [[nodiscard]] QSize sizeHint() const override { return {220, 120}; }

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    using Curve = std::vector<earthwork::BalancePoint>;
    Session& session_;
    ObjectId earthwork_;
    Curve curve_;
    bool none_ = false;  ///< there is no curve: nothing to stand on
    std::unique_ptr<LatestWorker<std::shared_ptr<const derive::Derived>, Curve>> worker_;
};

}  // namespace erdwerk::app
