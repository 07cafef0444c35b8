#pragma once
// The stages in the order of the job, each with a live count of what it holds.

#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QTimer>
#include <QWidget>
#include <array>

#include "app/base/actions.h"
#include "app/base/session.h"

namespace erdwerk::app {

class StageBar : public QWidget {
    Q_OBJECT
public:
    explicit StageBar(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] Stage stage() const { return stage_; }
    void setStage(Stage stage);

Q_SIGNALS:
    void stageChanged(Stage stage);
    void findingsPressed();

private:
    void refresh();
    void reserveWidths();
    void showWork();
    Session& session_;
    Stage stage_ = Stage::Field;
    std::array<QPushButton*, 5> buttons_{};
    QPushButton* findings_;
    QProgressBar* working_;
    QPushButton* stop_;
    QTimer timer_;
    int busyFor_ = 0;
};

}  // namespace erdwerk::app
