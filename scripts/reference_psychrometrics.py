"""Writes crates/core/testdata/psychrometrics.csv from the PyPI package PsychroLib 2.5.0,
a general library of the ASHRAE equations. Needs: pip install PsychroLib==2.5.0"""
import psychrolib as p

p.SetUnitSystem(p.SI)
print("# PsychroLib 2.5.0 (PyPI), SI units, 101325 Pa; made by scripts/reference_psychrometrics.py")
print("celsius,rh,saturation_pa,humidity_ratio,wet_bulb_c,dew_point_c")
for t in (-5, 5, 12, 18, 21, 25, 35):
    for rh in (0.2, 0.5, 0.8):
        print(f"{t},{rh},{p.GetSatVapPres(t):.4f},{p.GetHumRatioFromRelHum(t, rh, 101325):.8f},"
              f"{p.GetTWetBulbFromRelHum(t, rh, 101325):.3f},{p.GetTDewPointFromRelHum(t, rh):.3f}")
