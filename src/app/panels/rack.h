#pragma once
// The rack: the stage's tools by plain name; a tool that cannot run says why.

#include <QScrollArea>
#include <QVBoxLayout>

#include "app/base/actions.h"
#include "app/base/session.h"

namespace erdwerk::app {

class Rack : public QScrollArea {
    Q_OBJECT
public:
    Rack(ActionList& actions, Session& session, QWidget* parent = nullptr);
    void setStage(Stage stage);
    void setActive(const QString& actionId);

private:
    void refresh();
    ActionList& actions_;
    Stage stage_ = Stage::Field;
    QString active_;
    QVBoxLayout* layout_;
};

}  // namespace erdwerk::app
