#!/usr/bin/env bash
# Makes the pictures in docs/screenshots from the demo data, 1280 x 800.
set -euo pipefail
cd "$(dirname "$0")/.."
tools/setup.sh
[ -f build/release/build.ninja ] || cmake --preset release >/dev/null
cmake --build --preset release --target erdwerk >/dev/null
out=docs/screenshots
mkdir -p "$out"
take() {  # name, what to show
  xvfb-run -a -s "-screen 0 1600x1000x24" build/release/bin/erdwerk --demo --screenshot "$out/$1.png" --show "$2"
}
take field "stage=Field,select=survey"
take ground "stage=Ground,select=Ground,twin"
take findings "stage=Ground,page=Findings,select=Footpath,at=48064.5 91105,zoom=3"
take fit "stage=Ground,select=Ground,against=knoll,page=Fit,at=48167 91142,zoom=2.2"
take creases "stage=Ground,select=knoll,run=trace-crease,wait=2500,at=48167 91142,zoom=2.6,click=48141 91154.6,click=48141.2 91150,wait=300"
take side-by-side "stage=Ground,select=knoll,run=thin-surface,wait=500,run=twin-plan,at=48167 91142,zoom=2,fade=45,page=Section,select=North Knoll crest"
take volumes "stage=Ground,select=knoll,run=thin-surface,wait=500,run=volumes,map,at=48167 91142,zoom=2"
take shape "stage=Shape,select=Dome Terrace,twin"
take heights-at-hand "stage=Shape,select=Dome Terrace,zoom=2.4,at=48105 91090,run=heights-at-hand,enter=,type=-1% curve 12,type=+0.45"
take rows "stage=Shape,select=Retaining wall foot,zoom=6,at=48107 91131,run=offset-rows,type=set Ditch,type=left"
take earthworks "stage=Shape,select=Dome Terrace pad,zoom=7,at=48106 91092"
take heights-given "stage=Shape,lines=data/demo/turning-place.gpkg,zoom=8,at=48192 91045,run=give-heights,type=for all,type=from all,type=prefix k,type=tolerance 0.1"
take route "stage=Route,at=48080 91062,zoom=5,run=draw-alignment,type=radius 12,click=48058 91041,click=48072 91068,click=48098 91070,wait=400"
take profile "stage=Route,select=Starling Lane,page=Profile,at=48100 91030,zoom=3,wait=600"
take cross-sections "stage=Route,select=Starling Lane,run=cross-sections,at=48100 91040,zoom=4,wait=800"
take record "stage=Record,select=Plot Q-4,page=Tables,at=48108 91092,zoom=1.9"
take history "stage=Shape,select=Service trench,run=reverse,page=History"
xvfb-run -a -s "-screen 0 1600x1000x24" build/release/bin/erdwerk --screenshot "$out/start.png"
take sheet "stage=Record,select=Starling Lane,run=sheet-open,run=fold-bench,wait=1500"
