#pragma once
// Commands that belong together: what they are called, their keys, what they do, when they cannot run. One
// class for each stage, for files, editing, views, help; the window makes each once, in the order of its
// menus.

#include <QIcon>
#include <QKeySequence>
#include <QObject>
#include <functional>
#include <initializer_list>

#include "core/objects/object.h"

namespace erdwerk::app {

class ActionList;
class Session;
class Workbench;

class CommandSet : public QObject {
    Q_OBJECT
public:
    explicit CommandSet(Workbench& work);

protected:
    /// `menu`: the name of the menu that it stands in. `whyNot`: an empty text when it can run now.
    void command(const char* id, const QString& text, const QString& help, const QIcon& icon,
                 const QString& menu, const QKeySequence& key, std::function<void()> run,
                 std::function<QString()> whyNot = {});
    /// These commands are offered for objects under the cursor that suit them.
    void offer(std::initializer_list<const char*> ids,
               const std::function<bool(const objects::Object&)>& suits);
    /// For commands that need a project and nothing else.
    [[nodiscard]] std::function<QString()> anOpenProject() const;

    Workbench& work_;
    Session& session_;
    ActionList& actions_;
};

}  // namespace erdwerk::app
