#pragma once
// The one list of actions: rack, menu, finder and keys are made from it.

#include <QIcon>
#include <QKeySequence>
#include <QObject>
#include <QString>
#include <functional>
#include <optional>
#include <vector>

#include "core/objects/object.h"

namespace erdwerk::app {

enum class Stage { Field, Ground, Shape, Route, Record };
QString stageName(Stage stage);

struct Action {
    QString id = {};
    QString text = {};
    QString help = {};  ///< one sentence, shown as tool tip and in the finder
    QIcon icon = {};
    QString menu = {};  ///< name of the menu
    QKeySequence key =
        {};  ///< with Ctrl: anywhere; a single letter of its name: in the plan, while its stage is shown
    std::function<void()> run = {};
    std::function<QString()> whyNot = {};  ///< empty text: it can run now
    std::optional<Stage> stage = {};       ///< on whose rack it stands; none: menu and finder only
    QString section = {};                  ///< heading on the rack that it stands under
    /// It is offered for an object under the cursor; none: for no object.
    std::function<bool(const objects::Object&)> suits = {};
    QString words = {};  ///< by which the finder knows it, too
};

/// The object is of one of these kinds.
template <class... Kinds>
bool isOneOf(const objects::Object& object) {
    return (object.payload.is<Kinds>() || ...);
}

class ActionList : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;
    void add(Action action) { actions_.push_back(std::move(action)); }
    /// More words for the finder.
    void nameAlso(const QString& id, const QString& words);
    /// The action is offered for objects.
    void offerFor(const QString& id, std::function<bool(const objects::Object&)> suits);
    /// Gives an action its place on the rack; after all those that have theirs.
    void placeOnRack(const QString& id, Stage stage, const QString& section);
    /// After those of the stage, on the rack of each.
    void placeOnEveryRack(const QString& id, const QString& section);
    [[nodiscard]] const std::vector<Action>& all() const { return actions_; }
    /// Those of a stage's rack, in its order.
    [[nodiscard]] std::vector<const Action*> onRack(Stage stage) const;
    [[nodiscard]] const Action* find(const QString& id) const;
    /// The action of a stage with this single letter.
    [[nodiscard]] const Action* byLetter(Stage stage, const QString& letter) const;
    /// Runs it, or says why not through refused().
    void run(const QString& id);

Q_SIGNALS:
    void refused(const QString& reason);

private:
    std::vector<Action> actions_;
    std::vector<QString> rack_;
    std::vector<QString> everyRack_;
};

}  // namespace erdwerk::app
