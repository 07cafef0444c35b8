#pragma once
// The rack: the stage's tools by plain name, under headings that fold; a tool that cannot run says why.

#include <QScrollArea>
#include <QSet>
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
    /// Folds or unfolds a heading of the stage.
    void setFolded(const QString& heading, bool folded);
    [[nodiscard]] bool isFolded(const QString& heading) const;

private:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void refresh();
    void addHeading(const QString& heading);
    void addTool(const Action& action);
    /// A heading among those of all stages.
    [[nodiscard]] QString keyOf(const QString& heading) const;

    ActionList& actions_;
    Stage stage_ = Stage::Field;
    QString active_;
    QSet<QString> folded_;
    QVBoxLayout* layout_;
};

}  // namespace erdwerk::app
