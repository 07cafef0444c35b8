#pragma once
// The one list of actions: rack, menu, finder and keys are made from it.

#include <QKeySequence>
#include <QObject>
#include <QString>
#include <functional>
#include <optional>
#include <vector>

namespace erdwerk::app {

enum class Stage { Field, Ground, Shape, Route, Record };
QString stageName(Stage stage);

struct Action {
    QString id;
    QString text;
    QString help;  ///< one sentence, shown as tool tip and in the finder
    QString icon;
    std::optional<Stage> stage;  ///< on whose rack it stands; none: menu and finder only
    QString menu;                ///< name of the menu
    QKeySequence
        key;  ///< with Ctrl: anywhere; a single letter of its name: in the plan, while its stage is shown
    std::function<void()> run;
    std::function<QString()> whyNot;  ///< empty text: it can run now
    QString section = {};             ///< heading on the rack that it stands under
};

class ActionList : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    void add(Action action) {
        action.section = section_;
        actions_.push_back(std::move(action));
    }
    /// The heading of the actions that are added from now on.
    void setSection(QString section) { section_ = std::move(section); }
    [[nodiscard]] const std::vector<Action>& all() const { return actions_; }
    [[nodiscard]] const Action* find(const QString& id) const;
    /// The action of a stage with this single letter.
    [[nodiscard]] const Action* byLetter(Stage stage, const QString& letter) const;
    /// Runs it, or says why not through refused().
    void run(const QString& id);

Q_SIGNALS:
    void refused(const QString& reason);

private:
    QString section_;
    std::vector<Action> actions_;
};

}  // namespace erdwerk::app
