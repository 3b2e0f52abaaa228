# Draws a scene to small files of every kind, each in the folder of its reader.
file(WRITE ${SEEDS}/gray.brick "sheet size 9,7 ink black\nfill circle center 4,3 radius 2 ink white\n")
file(WRITE ${SEEDS}/color.brick "sheet size 9,7 ink teal\nfill circle center 4,3 radius 2 smooth ink gold\n")
file(WRITE ${SEEDS}/glass.brick "sheet size 9,7 ink #10203040\nfill circle center 4,3 radius 2 ink gold\n")
file(WRITE ${SEEDS}/few.brick "sheet size 9,7 ink gold\npalette quay\nfill circle center 4,3 radius 2 ink entry(3)\n")
function(seed reader scene kind)
    file(MAKE_DIRECTORY ${SEEDS}/${reader})
    execute_process(COMMAND ${TOOL} render ${SEEDS}/${scene}.brick -o ${SEEDS}/${reader}/${scene}.${kind}
        COMMAND_ERROR_IS_FATAL ANY OUTPUT_QUIET)
endfunction()
foreach(scene color glass few)
    seed(png ${scene} png)
    seed(pam ${scene} pam)
    seed(bmp ${scene} bmp)
    seed(qoi ${scene} qoi)
endforeach()
seed(gif few gif)
seed(webp color webp)
seed(webp glass webp)
# Moving ones.
file(WRITE ${SEEDS}/film.brick "sheet size 9,7 ink #0000\nframes 3 rate 10\nfill box at frame*2,1 size 3,2 ink gold\n")
foreach(kind png gif webp)
    seed(frames film ${kind})
endforeach()
file(MAKE_DIRECTORY ${SEEDS}/table)
file(WRITE ${SEEDS}/table/boats.csv "name,length\r\n\"Otter, \"\"old\"\"\",12\r\nEel,8\n")
seed(jpeg color jpg)
seed(pnm gray pbm)
seed(pnm gray pgm)
seed(pnm color ppm)

# Small fonts of each kind: outlines of TrueType and of PostScript, a variable one, and scripts whose letters join.
find_program(SUBSET hb-subset)
set(fonts /usr/share/fonts)
if(SUBSET)
    file(MAKE_DIRECTORY ${SEEDS}/font)
    foreach(font truetype/dejavu/DejaVuSans.ttf=fiAVé opentype/cantarell/Cantarell-Regular.otf=Ha1
            truetype/inter-vf/Inter-roman.var.ttf=Ha1 truetype/noto/NotoNaskhArabic-Regular.ttf=مرسى
            truetype/noto/NotoSansDevanagari-Regular.ttf=क्षि)
        string(REGEX MATCH "^(.*/([^/]*))=(.*)$" parts ${font})
        execute_process(COMMAND ${SUBSET} ${fonts}/${CMAKE_MATCH_1} --text=${CMAKE_MATCH_3}
            --output-file=${SEEDS}/font/${CMAKE_MATCH_2} COMMAND_ERROR_IS_FATAL ANY)
    endforeach()
endif()
