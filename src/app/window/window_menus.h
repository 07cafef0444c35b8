#pragma once
// The menu bar, made from the list of actions.

class QMenuBar;

namespace erdwerk::app {

class ActionList;

/// A menu for each name that actions give, in the order of the job.
void buildMenus(QMenuBar& bar, ActionList& actions);

}  // namespace erdwerk::app
