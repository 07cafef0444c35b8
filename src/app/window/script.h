#pragma once
// Brings the window into a state for a picture: the same actions a person would take, by name.

#include <QString>

namespace erdwerk::app {

class MainWindow;

/// A list like "stage=Shape,select=Dome Terrace,twin,page=Findings,zoom=4,tool=draw-line";
/// "dialog=FILE,run=settings" and "dialog=FILE,import=survey.csv" take the picture of the dialog that opens.
/// Empty text when all of it was understood, else what was not.
QString showForPicture(MainWindow& window, const QString& list);

}  // namespace erdwerk::app
