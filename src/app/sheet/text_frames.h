#pragma once
// Descriptions, notes, title blocks and pictures on paper.

#include <QStringList>

#include "app/base/snapshot.h"
#include "app/sheet/paper_ink.h"
#include "core/objects/sheet.h"

namespace erdwerk::app {

void paintDescription(const PaperInk& ink, const objects::DescriptionFrame& frame, const paper::Room& room);
void paintNotes(const PaperInk& ink, const objects::NotesFrame& frame, const paper::Room& room);
/// Gives the fonts that it asks for and that are not there; Inter stands in for them.
QStringList paintTitle(const PaperInk& ink, const objects::TitleFrame& frame, const paper::Room& room);
void paintPicture(const PaperInk& ink, const objects::PictureFrame& frame, const paper::Room& room);

}  // namespace erdwerk::app
